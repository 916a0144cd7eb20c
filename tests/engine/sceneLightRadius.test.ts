import { expect, test } from "vitest";
import { toneToLuminance } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { srgbEncode } from "@/core/colour/transferCurve";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { Stage } from "@/engine/stage/stage";
import { sceneStops } from "@/core/passes/scene-light/sceneLight";

test("looks as far around as a blur of three hundredths of the long edge, whichever way that lies", () => {
  // Gentle waves: a Gaussian of σ leaves exp(−2π²σ²∕period²) of their height.
  const [mean, height] = [0.25, 0.004];
  for (const across of [true, false]) {
    const size = across ? { width: 800, height: 300 } : { width: 300, height: 800 };
    const period = 160;
    const levels = new Uint16Array(3 * size.width * size.height);
    for (let i = 0; i < levels.length; i++) {
      const [x, y] = [Math.floor(i / 3) % size.width, Math.floor(i / 3 / size.width)];
      const t = mean + height * Math.sin((2 * Math.PI * (across ? x : y)) / period);
      levels[i] = Math.round(65535 * srgbEncode(toneToLuminance(t)));
    }
    const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
    const move = { kind: "scene-light", exposure: 0, shadows: 1, lights: 0 } as const;
    const tonesOf = (passes: ReturnType<typeof restingPass>[]) => {
      stage.update(compilePlan({ ...defaultPlan(), passes }), undefined);
      return stage.tonesAfter(passes.length).slice();
    };
    const [found, lit] = [tonesOf([]), tonesOf([{ ...restingPass("scene-light", "s", "S"), move }])];
    const odds = (t: number) => toneToLuminance(t) / (1 - toneToLuminance(t));
    let [given, ownWave] = [0, 0];
    // Away from the borders, over whole waves.
    for (let k = 240; k < 560; k++) {
      const i = across ? 150 * size.width + k : k * size.width + 150;
      const wave = Math.sin((2 * Math.PI * k) / period);
      given += wave * Math.log2(odds(lit[i]!) / odds(found[i]!));
      ownWave += wave * wave * height;
    }
    const slope = (sceneStops(move, mean + 1e-3) - sceneStops(move, mean - 1e-3)) / 2e-3;
    const left = given / ownWave / slope;
    const radius = ((Math.sqrt(Math.log(1 / left) / 2) / Math.PI) * period) / 800;
    // 0.03, and a little more for the cells it is gathered on and read between.
    expect(radius).toBeGreaterThan(0.0305);
    expect(radius).toBeLessThan(0.034);
  }
});
