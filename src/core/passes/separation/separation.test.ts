import { readTable } from "../../kernels/pairTable";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { separate } from "../../reference/kernels";
import { apply3, invert3, type Vector3 } from "../../colour/matrix3";
import { LMS_TO_LAB, linearP3ToOklab, P3_TO_LMS } from "../../colour/oklab";
import { P3_LUMINANCE } from "../../colour/primaries";
import type { HueRange, Parting, SeparationMove, Tinge } from "./move";
import { inRange, partingLine, separateStep, unfitParting } from "./separation";

const tinge = fc.record({ a: fc.double({ min: -0.2, max: 0.2, noNaN: true }), b: fc.double({ min: -0.2, max: 0.2, noNaN: true }) });
const moved = ({ fromA, fromB, offset, alongA, alongB }: ReturnType<typeof partingLine>, { a, b }: Tinge): Tinge => {
  const by = fromA * a + fromB * b + offset;
  return { a: a + by * alongA, b: b + by * alongB };
};
const move = (changed: Partial<SeparationMove>): SeparationMove => ({
  kind: "separation",
  saturation: 1,
  ranges: [],
  parting: null,
  ...changed,
});

/** Linear P3 of OKLab. */
function ofLab(lab: Vector3): Vector3 {
  const [l, m, s] = apply3(invert3(LMS_TO_LAB), lab);
  return apply3(invert3(P3_TO_LMS), [l ** 3, m ** 3, s ** 3]);
}
const separated = (lab: Vector3, settings: SeparationMove): Vector3 => {
  const [r, g, b] = ofLab(lab);
  const out = separate({ red: Float32Array.of(r), green: Float32Array.of(g), blue: Float32Array.of(b) }, separateStep(settings));
  return [out.red[0]!, out.green[0]!, out.blue[0]!];
};

describe("a parting", () => {
  test("leaves what stays and what is held where they are, and moves what moves by its amount, for any colours that can be parted", () => {
    fc.assert(
      fc.property(
        tinge,
        tinge,
        fc.option(tinge, { nil: null }),
        fc.double({ min: -1, max: 2, noNaN: true }),
        (stays, moves, held, amount) => {
          const parting: Parting = { stays, moves, held, amount };
          fc.pre(!unfitParting(parting));
          const line = partingLine(parting);
          const near = (p: Tinge, q: Tinge) => Math.hypot(p.a - q.a, p.b - q.b) < 1e-9;
          expect(near(moved(line, stays), stays)).toBe(true);
          if (held && Math.hypot(held.a - stays.a, held.b - stays.b) >= 0.01) expect(near(moved(line, held), held)).toBe(true);
          const goal = { a: stays.a + (1 + amount) * (moves.a - stays.a), b: stays.b + (1 + amount) * (moves.b - stays.b) };
          expect(near(moved(line, moves), goal)).toBe(true);
        },
      ),
      { seed: 14, numRuns: 500 },
    );
  });

  test("is refused for one colour, and for three in line; such a one in a plan does nothing", () => {
    const [p, q] = [
      { a: 0.05, b: 0.02 },
      { a: 0.1, b: -0.03 },
    ];
    const middle = { a: 0.2, b: -0.13 };
    expect(unfitParting({ stays: p, moves: { ...p, a: 0.051 }, held: null })).toBe("same");
    expect(unfitParting({ stays: p, moves: q, held: middle })).toBe("in line");
    expect(unfitParting({ stays: p, moves: q, held: { a: -0.1, b: -0.05 } })).toBeUndefined();
    const line = partingLine({ stays: p, moves: q, held: middle, amount: 1 });
    expect(moved(line, q)).toEqual(q);
  });
});

describe("ranges of hues", () => {
  const range: HueRange = { hueDeg: 350, widthDeg: 40, turnDeg: 30, chroma: 0.5 };
  test("reach smoothly to nothing on both sides, across the end of the turn too", () => {
    expect([350, 10, 330, 30, 310, 180].map((hue) => Number(inRange(range, hue).toFixed(3)))).toEqual([1, 0.5, 0.5, 0, 0, 0]);
  });
  test("turn and weaken their hue, and leave others and neutrals", () => {
    const at = (hueDeg: number, chroma = 0.1): Vector3 => [
      0.6,
      chroma * Math.cos((hueDeg * Math.PI) / 180),
      chroma * Math.sin((hueDeg * Math.PI) / 180),
    ];
    const hueOf = ([, a, b]: Vector3) => ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
    const made = linearP3ToOklab(separated(at(350), move({ ranges: [range] })));
    expect(hueOf(made)).toBeCloseTo(20, 0);
    expect(Math.hypot(made[1], made[2])).toBeCloseTo(0.05, 2);
    const other = separated(at(120), move({ ranges: [range] }));
    ofLab(at(120)).forEach((v, c) => expect(other[c]).toBeCloseTo(v, 6));
    const grey = separated(
      [0.6, 0, 0],
      move({ saturation: 2, ranges: [range], parting: { stays: { a: 0.1, b: 0 }, moves: { a: 0, b: 0.1 }, held: null, amount: 2 } }),
    );
    expect(Math.max(...grey) - Math.min(...grey)).toBeLessThan(1e-6);
  });
});

test("light stays, whatever is drawn apart", () => {
  const light = ([r, g, b]: Vector3) => P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b;
  const settings = move({
    saturation: 1.6,
    ranges: [{ hueDeg: 40, widthDeg: 60, turnDeg: -40, chroma: 1.5 }],
    parting: { stays: { a: 0.1, b: 0.05 }, moves: { a: -0.05, b: 0.1 }, held: null, amount: 0.8 },
  });
  for (const lab of [
    [0.5, 0.1, 0.08],
    [0.7, -0.06, 0.1],
    [0.3, 0.02, -0.06],
  ] as const)
    expect(light(separated(lab, settings))).toBeCloseTo(light(ofLab(lab)), 5);
});

test("tables of a separation at rest are those of no change", () => {
  const { along, across } = separateStep(move({}));
  for (let x = 0; x <= 1; x += 0.01) {
    expect(readTable(along, x)).toBe(1);
    expect(readTable(across, x)).toBe(0);
  }
});
