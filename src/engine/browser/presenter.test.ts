import { beforeEach, expect, test, vi } from "vitest";
import type { Frame, FromPresenter, Screen } from "../messages/messages";
import { Presenter } from "./presenter";

beforeEach(() => void vi.stubGlobal("ImageData", class { constructor(readonly data: Uint8ClampedArray) {} })); // prettier-ignore

const preview: Screen = { name: "preview", area: "preview", isWhole: true };
const part = (x: number): Screen => ({ name: `part ${x}`, area: { level: 0, x, y: 0, width: 1, height: 1 }, isWhole: true });
const frame = (number: number, screen: Screen): Frame => {
  return { view: 1, number, screen, width: 1, height: 1, rgba: new Uint8ClampedArray(4).fill(number), scale: 1, tookMs: 0 };
};

/** A canvas that tells what was drawn on it. */
function canvasOf() {
  const drawn: number[] = [];
  const context = { putImageData: ({ data }: ImageData) => drawn.push(data[0]!) };
  return { drawn, canvas: { width: 0, height: 0, getContext: () => context } as unknown as HTMLCanvasElement };
}

function presented() {
  const said: FromPresenter[] = [];
  const given: number[] = [];
  const presenter = new Presenter((message) => said.push(message));
  return {
    presenter,
    show: (...args: Parameters<typeof frame>) => presenter.show(frame(...args), ({ number }) => given.push(number)),
    given,
    words: () => said.map((message) => (message.type === "wanted" ? `wanted ${message.screen.name}` : `drawn ${message.number}`)),
  };
}

test("a frame waits for its canvas, which is asked for once; of several that wait the newest is drawn", () => {
  const { presenter, show, given, words } = presented();
  show(1, preview);
  show(2, preview);
  const { canvas, drawn } = canvasOf();
  presenter.take(1, canvas);
  show(3, preview);
  expect(words()).toEqual(["wanted preview", "drawn 2", "drawn 3"]);
  expect(drawn).toEqual([2, 3]);
  expect(given).toEqual([2, 3]);
});

test("a frame of another part is never drawn on the canvas of the last one", () => {
  const { presenter, show, words } = presented();
  const [first, second] = [canvasOf(), canvasOf()];
  show(1, part(0));
  presenter.take(1, first.canvas);
  show(2, part(9));
  presenter.take(2, second.canvas);
  show(3, part(0));
  expect(words()).toEqual(["wanted part 0", "drawn 1", "wanted part 9", "drawn 2", "wanted part 0"]);
  expect([first.drawn, second.drawn]).toEqual([[1], [2]]);
});

test("what waits is forgotten once what is shown is drawn again, and its canvas comes too late", () => {
  const { presenter, show, words } = presented();
  const [whole, late] = [canvasOf(), canvasOf()];
  show(1, part(0));
  presenter.take(1, whole.canvas);
  show(2, part(9));
  show(3, part(0));
  presenter.take(2, late.canvas);
  expect(late.drawn).toEqual([]);
  show(4, part(0));
  expect(whole.drawn).toEqual([1, 3, 4]);
  expect(words()).toEqual(["wanted part 0", "drawn 1", "wanted part 9", "drawn 3", "drawn 4"]);
});

test("the part over the print has a canvas beside the print's", () => {
  const { presenter, show } = presented();
  const [under, over] = [canvasOf(), canvasOf()];
  show(1, preview);
  presenter.take(1, under.canvas);
  show(2, part(0));
  presenter.take(2, over.canvas);
  show(3, preview);
  expect([under.drawn, over.drawn]).toEqual([[1, 3], [2]]);
});

test("of two canvases for what was wished for twice, the first came too late and the second is drawn on", () => {
  const { presenter, show, words } = presented();
  const [whole, late, second] = [canvasOf(), canvasOf(), canvasOf()];
  show(1, part(0));
  presenter.take(1, whole.canvas);
  show(2, part(9));
  show(3, part(0));
  show(4, part(9));
  presenter.take(2, late.canvas); // for the first wish: the page has let go of it
  presenter.take(3, second.canvas);
  expect([late.drawn, second.drawn]).toEqual([[], [4]]);
  expect(words().at(-1)).toBe("drawn 4");
});

test("each view has canvases of its own, and none once it is closed", () => {
  const { presenter, show, words } = presented();
  const [one, other] = [canvasOf(), canvasOf()];
  const inOther = (number: number) => presenter.show({ ...frame(number, preview), view: 2 }, () => undefined);
  show(1, preview);
  inOther(2);
  presenter.take(1, one.canvas);
  presenter.take(2, other.canvas);
  show(3, preview);
  inOther(4);
  presenter.close(2);
  show(5, preview);
  inOther(6);
  expect([one.drawn, other.drawn]).toEqual([
    [1, 3, 5],
    [2, 4],
  ]);
  expect(words().at(-1)).toBe("wanted preview");
});
