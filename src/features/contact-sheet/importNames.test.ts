import { expect, test } from "vitest";
import { importNames } from "./importNames";

test("files of one name take their folder's before it; others keep theirs", () => {
  expect(
    importNames([
      { name: "0001.tif", path: "./north dome/0001.tif" },
      { name: "0001.TIF", path: "./stair/0001.TIF" },
      { name: "0002.tif", path: "./stair/0002.tif" },
      { name: "0001.tif", path: "./0001.tif" },
      { name: "0001.tif" },
    ]),
  ).toEqual(["north dome, 0001.tif", "stair, 0001.TIF", "0002.tif", "0001.tif", "0001.tif"]);
});
