import { expect, test } from "vitest";
import { createViewStore, tieViews } from "./viewStore";

const AT = { scale: 2, x: 0.3, y: 0.4 };

test("views move singly until they are tied, then together, and singly again once they are parted", () => {
  const stores = [createViewStore(), createViewStore(), createViewStore()];
  const zooms = () => stores.map((store) => store.getState().zoomed?.scale);
  stores[1]!.setState({ zoomed: AT });
  expect(zooms()).toEqual([undefined, 2, undefined]);
  const part = tieViews(stores.slice(0, 2));
  expect(zooms()).toEqual([undefined, undefined, undefined]);
  stores[1]!.setState({ zoomed: { ...AT, scale: 3 } });
  expect(zooms()).toEqual([3, 3, undefined]);
  stores[0]!.setState({ zoomed: AT });
  expect(zooms()).toEqual([2, 2, undefined]);
  part();
  stores[0]!.setState({ zoomed: undefined });
  expect(zooms()).toEqual([undefined, 2, undefined]);
});
