import { expect, test } from "vitest";
import { ByteRoom } from "./byteRoom";

test("as many come in as there is room for, one however large, and each gives back its own, once", () => {
  const room = new ByteRoom(100);
  const first = room.take(60);
  const second = room.take(40);
  expect(() => room.take(1)).toThrow(expect.objectContaining({ code: "busy", headers: { "retry-after": "2", connection: "close" } }));
  second();
  second();
  expect(() => room.take(41)).toThrow(expect.objectContaining({ code: "busy" }));
  room.take(40)();
  first();
  const large = room.take(1000);
  expect(() => room.take(1)).toThrow(expect.objectContaining({ code: "busy" }));
  large();
  room.take(100);
});
