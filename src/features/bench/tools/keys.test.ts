import { expect, test } from "vitest";
import { KEY_LINES, keyOf } from "./keys";

const held = { ctrlKey: false, metaKey: false, shiftKey: false };

test("no key does two things, and each is found by its event and shown in the help", () => {
  const seen = new Map<string, string>();
  for (const line of Object.values(KEY_LINES).flat())
    for (const key of line.keys)
      for (const on of key.on) {
        const id = `${key.ctrl ? "ctrl " : ""}${key.shift ? "shift " : ""}${on}`;
        expect([id, seen.get(id)]).toEqual([id, undefined]);
        seen.set(id, line.words);
        expect(keyOf({ key: on.toUpperCase(), ctrlKey: key.ctrl ?? false, metaKey: false, shiftKey: key.shift ?? false })).toBe(key);
        const shown = { escape: "esc", "=": "+", "-": "−" }[on] ?? on;
        const isShown = /^[0-9]$/.test(on) ? line.shown.startsWith("0 … 9") : line.shown.toLowerCase().includes(shown);
        expect([on, line.shown, isShown || on === "y"]).toEqual([on, line.shown, true]);
      }
  expect(seen.size).toBeGreaterThan(40);
});

test("a key with Ctrl is another than without, and what no line has is nobody's", () => {
  expect(keyOf({ ...held, key: "z" })).not.toBe(keyOf({ ...held, key: "z", ctrlKey: true }));
  expect(keyOf({ ...held, key: "g", ctrlKey: true })).toBeUndefined();
  expect(keyOf({ ...held, key: "s", ctrlKey: true })).toBeUndefined();
  expect(keyOf({ ...held, key: "Z", metaKey: true, shiftKey: true })).not.toBe(keyOf({ ...held, key: "z", metaKey: true }));
  expect(keyOf({ ...held, key: "F5" })).toBeUndefined();
});
