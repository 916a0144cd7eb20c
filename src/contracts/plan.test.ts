import { openGate } from "@/core/gate/gate";
import { packPath } from "@/core/brush/stroke";
import fc from "fast-check";
import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { PLAN_VERSION } from "@/core/plan/plan";
import { anyPlan } from "../../tests/anyPlan";
import { MOST_FAULTS, parsePlan, planJsonSchema } from "./plan";

const draft = () => structuredClone(defaultPlan()) as unknown as Record<string, any>;

test("the default plan and any plan made by the rules are valid, and come back the same", () => {
  expect(parsePlan(defaultPlan())).toEqual(defaultPlan());
  const check = fc.property(anyPlan(), (plan) => {
    const json: unknown = JSON.parse(JSON.stringify(plan)); // what a file holds: −0 becomes 0
    expect(parsePlan(json)).toEqual(json);
  });
  fc.assert(check, { seed: 71 });
});

test.each([1, 2])("a plan of version %i is brought up to date", (version) => {
  const old = draft();
  old.version = version;
  delete old.sets;
  for (const pass of old.passes) {
    delete pass.zonesOff;
    delete pass.set;
    if (version === 1) delete pass.blend;
  }
  expect(parsePlan(old)).toEqual(defaultPlan());
});

describe("upgrades", () => {
  const exposure = { ...restingPass("exposure", "painted", "Painted") };
  const at = (version: number, spoil: (plan: Record<string, any>) => void) => {
    const old = draft();
    old.passes.push(structuredClone(exposure));
    old.version = version;
    spoil(old);
    return parsePlan(old);
  };
  test("from 3: no regions yet, and no pass confined to one or to a gate", () => {
    const plan = at(3, (old) => {
      delete old.regions;
      old.passes.forEach((pass: Record<string, unknown>) => ["region", "gate"].forEach((key) => delete pass[key]));
      ["soften", "limit"].forEach((key) => delete old.passes[1].move[key]);
    });
    expect(plan.regions).toEqual([]);
    for (const { region, gate } of plan.passes) expect([region, gate]).toEqual([null, null]);
  });
  test("from 4: what is painted is neither softened nor held", () => {
    const plan = at(4, (old) => ["soften", "limit"].forEach((key) => delete old.passes[1].move[key]));
    expect(plan.passes[1]!.move).toMatchObject({ soften: 0, limit: null });
    expect(plan.passes[0]).toEqual(defaultPlan().passes[0]);
  });
  test("from 9: a likeness goes on finding its borders by tone", () => {
    const like = { id: "l", combine: "add", kind: "likeness", touched: [{ x: 0.5, y: 0.5 }], not: [], tolerance: 0.1, connected: true };
    const region = { id: "r", name: "R", shapes: [like], soften: 0, fit: 0, invert: false, density: 1 };
    expect(at(9, (old) => (old.regions = [region])).regions[0]!.shapes).toEqual([{ ...like, edges: "tone", apart: "colour" }]);
    expect(() => at(10, (now) => (now.regions = [region]))).toThrow("regions[0].shapes[0].edges");
  });
  test("from 10: what is taken away from a likeness goes on being told by colour, and strokes erase their own alone", () => {
    const like = { id: "l", combine: "add", kind: "likeness", touched: [], not: [], tolerance: 0.1, connected: true, edges: "colour" };
    const brush = { id: "b", combine: "add", kind: "brush", x: 0, y: 0, strokes: [] };
    const region = { id: "r", name: "R", shapes: [like, brush], soften: 0, fit: 0, invert: false, density: 1 };
    expect(at(10, (old) => (old.regions = [region])).regions[0]!.shapes).toEqual([
      { ...like, apart: "colour" },
      { ...brush, beneath: false },
    ]);
    expect(() => at(11, (now) => (now.regions = [region]))).toThrow(/shapes\[0\]\.apart.*\n.*shapes\[1\]\.beneath/);
  });
  test("from 9: a set acts everywhere and on all tones", () => {
    const plan = at(9, (old) => {
      tiedInto(old, {});
      ["region", "gate"].forEach((key) => delete old.sets[0][key]);
    });
    expect(plan.sets).toEqual([{ id: "s", name: "Set", on: true, strength: 1, region: null, gate: null }]);
  });
  test("from 5: shapes of one id are told apart, and nothing else of them changes", () => {
    const gradient = { combine: "add", kind: "gradient", from: { x: 0, y: 0 }, to: { x: 0, y: 1 }, twoSided: false };
    const shapes = ["a", "a", "shape-1", "a"].map((id) => ({ ...gradient, id }));
    const region = { id: "r", name: "R", shapes, soften: 0, fit: 0, invert: false, density: 1 };
    const plan = at(5, (old) => (old.regions = [region]));
    const ids = plan.regions[0]!.shapes.map(({ id }) => id);
    expect(new Set(ids).size).toBe(4);
    expect([ids[0], ids[2]]).toEqual(["a", "shape-1"]);
    plan.regions[0]!.shapes.forEach((shape) => expect(shape).toMatchObject(gradient));
    expect(() => at(6, (now) => (now.regions = [region]))).toThrow("regions[0].shapes[1].id: another shape has this id");
  });
});

const dust = {
  id: "a",
  kind: "heal",
  path: packPath([{ x: 0.5, y: 0.5, pressure: 1 }]),
  radius: 0.01,
  softness: 0.3,
  from: { x: 0.1, y: 0 },
};

const tinted = (zone: number) => ({ zone, hueDeg: 70, chroma: 0.03 });
const tiedInto = (plan: Record<string, any>, set: object) => {
  plan.sets = [{ id: "s", name: "Set", on: true, strength: 1, region: null, gate: null, ...set }];
  plan.passes[0].set = "s";
};

describe("a plan that is not valid is refused, naming the field", () => {
  const faults: [string, (plan: Record<string, any>) => void][] = [
    ["version", (plan) => (plan.version = PLAN_VERSION + 1)],
    ["spots[0].radius", (plan) => (plan.spots = [{ ...dust, radius: 0 }])],
    ["spots[1].id", (plan) => (plan.spots = [dust, dust])],
    ["mix.weights.red", (plan) => (plan.mix.weights.red = 3)],
    ["mix.weights.blue", (plan) => (plan.mix.weights.blue = "much")],
    [
      "mix.hueKnots[1].hueDeg",
      (plan) =>
        (plan.mix.hueKnots = [
          { hueDeg: 90, stops: 0 },
          { hueDeg: 40, stops: 0 },
        ]),
    ],
    ["mix.hueKnots[0].stops", (plan) => (plan.mix.hueKnots = [{ hueDeg: 90, stops: 7 }])],
    ["passes[0].strength", (plan) => (plan.passes[0].strength = -0.1)],
    [
      "passes[0].move.strands[1].to",
      (plan) =>
        (plan.passes[0].move.strands = [
          { from: 0, to: 5 },
          { from: 10, to: 4 },
        ]),
    ],
    [
      "passes[0].move.strands[1].from",
      (plan) =>
        (plan.passes[0].move.strands = [
          { from: 5, to: 5 },
          { from: 5.01, to: 6 },
        ]),
    ],
    ["passes[0].move.strands", (plan) => (plan.passes[0].move.strands = [{ from: 5, to: 5 }])],
    ["passes[1].id", (plan) => plan.passes.push(structuredClone(plan.passes[0]))],
    ["passes[0].blend", (plan) => (plan.passes[0].blend = "stir")],
    ["passes[0].move.kind", (plan) => (plan.passes[0].move = { kind: "magic" })],
    ["passes[0].move.white", (plan) => (plan.passes[0].move = { kind: "contrast", around: 5, grade: 2, black: 6, white: 6.2 })],
    ["passes[0].move.grade", (plan) => (plan.passes[0].move = { kind: "contrast", around: 5, grade: 6, black: 0, white: 10 })],
    ["passes[0].move.radius", (plan) => (plan.passes[0].move = { kind: "contrast-mask", radius: 0, density: 0.2, edges: true })],
    ["passes[0].zonesOff", (plan) => (plan.passes[0].zonesOff = [4, 4])],
    ["passes[0].set", (plan) => (plan.passes[0].set = "nobody")],
    ["sets[0]", (plan) => (plan.sets = [{ id: "s", name: "Empty", on: true, strength: 1, region: null, gate: null }])],
    [
      "passes[2].set",
      (plan) => {
        plan.sets = [{ id: "s", name: "Torn", on: true, strength: 1, region: null, gate: null }];
        plan.passes = ["a", "b", "c"].map((id) => ({ ...structuredClone(plan.passes[0]), id, set: id === "b" ? null : "s" }));
      },
    ],
    ["sets[0].region", (plan) => tiedInto(plan, { region: "nowhere" })],
    ["sets[0].gate.source", (plan) => tiedInto(plan, { gate: openGate() })],
    ["passes[0].move.points", (plan) => (plan.passes[0].move = { kind: "tint", points: [tinted(5), tinted(4)], replaces: false })],
    ["passes[0].move.points", (plan) => (plan.passes[0].move = { kind: "tint", points: [], replaces: false })],
    [
      "passes[0].move.points[0].chroma",
      (plan) => (plan.passes[0].move = { kind: "tint", points: [{ ...tinted(5), chroma: 3 }], replaces: false }),
    ],
    ["passes[0].move.saturation", (plan) => (plan.passes[0].move = { kind: "colour-return", saturation: -1 })],
    ["passes[0].name", (plan) => (plan.passes[0].name = "  ")],
    ["passes", (plan) => delete plan.passes],
    ["plan", (plan) => (plan.colour = {})],
  ];
  test.each(faults)("%s", (field, spoil) => {
    const plan = draft();
    spoil(plan);
    try {
      parsePlan(plan);
    } catch (error) {
      expect(error).toMatchObject({ code: "bad_plan" });
      expect((error as Error).message.split("\n").map((line) => line.split(":")[0])).toContain(field);
      return;
    }
    throw new Error("the plan was taken");
  });
  test.each([null, 3, "plan", []])("%j", (json) => expect(() => parsePlan(json)).toThrow(expect.objectContaining({ code: "bad_plan" })));
});

test("of very many faults the first are told, and how many more there are", () => {
  const plan = { ...defaultPlan(), passes: Array.from({ length: 150 }, () => ({ x: 1 })) };
  expect.assertions(3);
  try {
    parsePlan(plan);
  } catch (error) {
    const { message, details } = error as { message: string; details: { faults: unknown[] } };
    expect(details.faults).toHaveLength(MOST_FAULTS);
    expect(message.split("\n")).toHaveLength(MOST_FAULTS + 1);
    expect(message).toMatch(/and \d{3,} faults more$/);
  }
});

test("the published JSON Schema is the current one (npm run schema writes it)", () => {
  expect(JSON.parse(readFileSync("docs/plan.schema.json", "utf8"))).toEqual(JSON.parse(JSON.stringify(planJsonSchema())));
});
