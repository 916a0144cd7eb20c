import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Fingers, type Finger } from "./fingers";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

function made() {
  const told: string[] = [];
  const name = ({ x, y }: { x: number; y: number }) => `${x},${y}`;
  const fingers = new Fingers<Finger>({
    press: (finger) => told.push(`press ${name(finger)}`),
    move: (finger) => told.push(`move ${name(finger)}`),
    release: (finger) => told.push(`release ${name(finger)}`),
    cancel: () => told.push("cancel"),
    read: (finger) => told.push(`read ${name(finger)}`),
    hold: () => told.push("hold"),
    carry: (from, to, ratio) => told.push(`carry ${name(from)} to ${name(to)} by ${ratio}`),
  });
  const at = (pointerId: number, x: number, y: number) => ({ pointerId, x, y });
  return { told, fingers, at };
}

test("one finger uses the tool from where it was put down, once it moves; a tap is a press and a release", () => {
  const { told, fingers, at } = made();
  fingers.down(at(1, 10, 10), true);
  fingers.move(at(1, 14, 10));
  expect(told).toEqual([]);
  fingers.move(at(1, 20, 10));
  fingers.move(at(1, 30, 10));
  fingers.up(at(1, 30, 10));
  expect(told).toEqual(["press 10,10", "move 20,10", "move 30,10", "release 30,10"]);
  told.length = 0;
  fingers.down(at(2, 5, 5), true);
  fingers.up(at(2, 6, 5));
  expect(told).toEqual(["press 5,5", "release 6,5"]);
});

test("held still, it reads and does nothing else", () => {
  const { told, fingers, at } = made();
  fingers.down(at(1, 10, 10), true);
  fingers.move(at(1, 12, 10));
  vi.advanceTimersByTime(500);
  fingers.move(at(1, 40, 10));
  fingers.up(at(1, 40, 10));
  expect(told).toEqual(["read 12,10", "read 40,10"]);
});

test("two fingers carry and enlarge; neither uses the tool, nor does the one that stays", () => {
  const { told, fingers, at } = made();
  fingers.down(at(1, 0, 0), true);
  fingers.down(at(2, 100, 0), true);
  fingers.move(at(2, 200, 20));
  vi.advanceTimersByTime(1000);
  fingers.up(at(1, 0, 0));
  fingers.move(at(2, 210, 30));
  fingers.up(at(2, 210, 30));
  expect(told).toEqual(["hold", `carry 50,0 to 100,10 by ${Math.hypot(200, 20) / 100}`, "hold", "carry 200,20 to 210,30 by 1"]);
});

test("a second finger that comes at once takes back what the first began; one that comes later is not looked at", () => {
  const { told, fingers, at } = made();
  fingers.down(at(1, 0, 0), true);
  fingers.move(at(1, 20, 0));
  vi.advanceTimersByTime(100);
  fingers.down(at(2, 100, 0), true);
  expect(told).toEqual(["press 0,0", "move 20,0", "cancel", "hold"]);
  fingers.up(at(1, 20, 0));
  fingers.up(at(2, 100, 0));
  told.length = 0;
  fingers.down(at(1, 0, 0), true);
  fingers.move(at(1, 20, 0));
  vi.advanceTimersByTime(400);
  fingers.down(at(2, 100, 0), true);
  fingers.move(at(2, 120, 0));
  fingers.up(at(2, 120, 0));
  fingers.move(at(1, 40, 0));
  fingers.up(at(1, 40, 0));
  expect(told).toEqual(["press 0,0", "move 20,0", "move 40,0", "release 40,0"]);
});

test("where fingers do not use the tool one carries the picture; what the system takes away is as if it had not begun", () => {
  const { told, fingers, at } = made();
  fingers.down(at(1, 0, 0), false);
  fingers.move(at(1, 20, 5));
  fingers.up(at(1, 20, 5));
  expect(told).toEqual(["hold", "carry 0,0 to 20,5 by 1"]);
  told.length = 0;
  fingers.down(at(1, 0, 0), true);
  fingers.up(at(1, 0, 0), true);
  fingers.down(at(1, 0, 0), true);
  fingers.move(at(1, 20, 0));
  fingers.up(at(1, 20, 0), true);
  expect(told).toEqual(["press 0,0", "move 20,0", "cancel"]);
});
