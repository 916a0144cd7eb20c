import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { LEAST_DEPTH, LEAST_SHARE, MOMENTS } from "../grain/grain";
import { LUMINANCE_WEIGHTS } from "../mix/weights";
import { grainOf, momentsOf, packGrain, unpackChannel } from "./grain";
import { KernelHeap } from "../kernels/kernelHeap";
import { anyNumber } from "../../../tests/anyNumber";

// Two colours that stand for all a pixel is made of: what they keep, and the kernels against their plain twins.

const light = LUMINANCE_WEIGHTS;
type Colour = { red: number; green: number; blue: number };
const lightOf = ({ red, green, blue }: Colour) => light.red * red + light.green * green + light.blue * blue;

const colour = fc.record({
  red: anyNumber(0.001, 1),
  green: anyNumber(0.001, 1),
  blue: anyNumber(0.001, 1),
});
const pixel = fc.array(colour, { minLength: 2, maxLength: 25 });
const made = (colours: Colour[]) =>
  momentsOf(
    colours.map((each) => ({ ...each, amount: 1 / colours.length })),
    light,
  );

describe("the two colours that stand for a pixel", () => {
  test("keep the mean of any cubic of its light, and its colour, and lie within its lights", () => {
    fc.assert(
      fc.property(pixel, fc.tuple(anyNumber(-2, 2), anyNumber(-2, 2)), (colours, [a, b]) => {
        const grain = grainOf(made(colours), light);
        if (!grain || grain.share <= LEAST_SHARE || grain.share >= 1 - LEAST_SHARE) return;
        const cubic = (y: number) => 0.2 + y + a * y ** 2 + b * y ** 3;
        const [low, high] = [lightOf(grain.darker), lightOf(grain.lighter)];
        const ofTwo = (1 - grain.share) * cubic(low) + grain.share * cubic(high);
        const ofAll = colours.reduce((sum, each) => sum + cubic(lightOf(each)), 0) / colours.length;
        expect(Math.abs(ofTwo - ofAll)).toBeLessThan(1e-6);
        const lights = colours.map(lightOf);
        expect(low).toBeGreaterThan(Math.min(...lights) - 1e-6);
        expect(high).toBeLessThan(Math.max(...lights) + 1e-6);
        for (const name of ["red", "green", "blue"] as const) {
          const mean = colours.reduce((sum, each) => sum + each[name], 0) / colours.length;
          expect(Math.abs((1 - grain.share) * grain.darker[name] + grain.share * grain.lighter[name] - mean)).toBeLessThan(1e-9);
        }
      }),
      { seed: 11, numRuns: 500 },
    );
  });

  test("are the colours themselves where there are two of them", () => {
    fc.assert(
      fc.property(colour, colour, fc.integer({ min: 1, max: 15 }), (one, other, of16) => {
        const [darker, lighter] = lightOf(one) < lightOf(other) ? [one, other] : [other, one];
        if (lightOf(lighter) < 1.2 * lightOf(darker)) return;
        const amount = of16 / 16;
        const grain = grainOf(
          momentsOf(
            [
              { ...darker, amount: 1 - amount },
              { ...lighter, amount },
            ],
            light,
          ),
          light,
        )!;
        expect(grain.share).toBeCloseTo(amount, 6);
        for (const name of ["red", "green", "blue"] as const) {
          expect(grain.darker[name]).toBeCloseTo(darker[name], 6);
          expect(grain.lighter[name]).toBeCloseTo(lighter[name], 6);
        }
      }),
      { seed: 12, numRuns: 300 },
    );
  });

  test("are none where all is as good as alike, and where there is no light", () => {
    const grey = (y: number) => ({ red: y, green: y, blue: y });
    expect(grainOf(made([grey(0.5), grey(0.5 * (1 + LEAST_DEPTH))]), light)).toBeUndefined();
    expect(grainOf(made([grey(0), grey(0)]), light)).toBeUndefined();
    expect(grainOf(made([grey(0.5), grey(0.55)]), light)).toBeDefined();
  });
});

describe("kernels for grain", () => {
  const N = 400;
  const stride = 4 * N;
  const heap = new KernelHeap(1 << 20);
  const reserve = (planes: number) => heap.reserve(planes * stride);
  const [moments, out, packed, mean, again, by] = [reserve(MOMENTS.length), reserve(7), reserve(1), reserve(3), reserve(7), reserve(1)];
  const plane = (at: number, k: number) => heap.f32(at + k * stride, N);
  const samples = fc.sample(fc.array(colour, { minLength: 4, maxLength: 4 }), { numRuns: N, seed: 13 }) as Colour[][];
  const amounts = [0.1, 0.2, 0.3, 0.4];
  const { red: wr, green: wg, blue: wb } = light;

  test("moments, grain, packed and unpacked, agree with their twins", () => {
    heap.f32(moments, MOMENTS.length * N).fill(0);
    amounts.forEach((amount, k) => {
      (["red", "green", "blue"] as const).forEach((name, c) => plane(mean, c).set(samples.map((colours) => colours[k]![name])));
      plane(by, 0).fill(amount);
      heap.run.addMoments(mean, mean + stride, mean + 2 * stride, by, moments, stride, N, wr, wg, wb);
    });
    const expected = samples.map((colours) =>
      momentsOf(
        colours.map((each, k) => ({ ...each, amount: amounts[k]! })),
        light,
      ),
    );
    MOMENTS.forEach((name, k) => expected.forEach((own, i) => expect(plane(moments, k)[i]).toBeCloseTo(own[name], 6)));

    heap.run.grainOf(moments, out, stride, N, wr, wg, wb, LEAST_DEPTH, LEAST_SHARE);
    for (let c = 0; c < 3; c++) plane(mean, c).set(plane(moments, c));
    heap.run.packGrain(mean, out, stride, packed, N);
    heap.run.unpackGrain(mean, packed, again, stride, N);
    const planes = (at: number) => ({ red: plane(at, 0), green: plane(at, 1), blue: plane(at, 2) });
    const grain = { darker: planes(out), lighter: planes(out + 3 * stride), share: plane(out, 6) };
    let [withGrain, worst] = [0, 0];
    expected.forEach((own, i) => {
      const twin = grainOf(own, light);
      if (!twin) return;
      withGrain++;
      expect(grain.share[i]).toBeCloseTo(twin.share, 2); // skewness is a small difference of large numbers in float32
      expect(lightOf({ red: grain.darker.red[i]!, green: grain.darker.green[i]!, blue: grain.darker.blue[i]! })).toBeCloseTo(
        lightOf(twin.darker),
        3,
      );
      const word = packGrain(planes(mean), grain, i);
      expect(heap.u32(packed, N)[i]).toBe(word);
      (["red", "green", "blue"] as const).forEach((name, c) => {
        const { darker, lighter } = unpackChannel(plane(mean, c)[i]!, word, c as 0 | 1 | 2);
        expect(plane(again, c)[i]).toBeCloseTo(darker, 6);
        expect(plane(again, 3 + c)[i]).toBeCloseTo(lighter, 5);
        const share = (word & 0xff) / 256;
        expect((1 - share) * darker + share * lighter).toBeCloseTo(plane(mean, c)[i]!, 6); // whatever is lost in packing, never the mean
        const rises = grain.darker[name][i]! / plane(mean, c)[i]!;
        if (rises >= 0 && rises <= 2 && grain.lighter[name][i]! >= 0)
          worst = Math.max(worst, Math.abs(darker - grain.darker[name][i]!) / plane(mean, c)[i]!);
      });
    });
    expect(withGrain).toBeGreaterThan(300);
    expect(worst).toBeLessThan(0.03);
  });

  test("means of neighbours, and colour through a matrix", () => {
    plane(mean, 0).set(Float32Array.from({ length: N }, (_, i) => i * i));
    heap.run.pairMeans(mean, out, N / 2);
    for (let i = 0; i < N / 2; i++) expect(plane(out, 0)[i]).toBe(((2 * i) ** 2 + (2 * i + 1) ** 2) / 2);
    [1, 2, 3].forEach((value, c) => plane(mean, c).fill(value));
    heap.f32(by, 9).set([1, 0, 1, 0, 2, 0, -1, 1, 1]);
    heap.run.throughMatrix(mean, stride, N, by);
    expect([plane(mean, 0)[7], plane(mean, 1)[399], plane(mean, 2)[0]]).toEqual([4, 4, 4]);
  });
});
