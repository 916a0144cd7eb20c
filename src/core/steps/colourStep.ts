import type { Matrix3 } from "../colour/matrix3";
import type { Spread } from "../spatial/toneBase";

/**
 * What passes do to colour before it is mixed. Closed: the engine has a handler for each (engine/steps), and one without does not compile.
 */
export interface ColourSteps {
  matrix: MatrixStep;
  separate: SeparateStep;
  light: LightStep;
}
export type ColourStepKind = keyof ColourSteps;
export type ColourStep<K extends ColourStepKind = ColourStepKind> = { [P in K]: ColourSteps[P] }[K];

/** Linear Display P3 through a matrix. */
export interface MatrixStep {
  kind: "matrix";
  matrix: Matrix3;
}

/**
 * OKLab's a and b moved along a line as far as a pixel is coloured, then turned and scaled by their hue; luminance stays, and what the
 * source cannot hold gives way towards grey.
 * Over hue in turns: how much of the colour stays along itself, and how much goes across; tables of one knot are the same for all hues, and
 * have nothing across.
 */
export interface SeparateStep {
  kind: "separate";
  along: Float32Array;
  across: Float32Array;
  parting: { fromA: number; fromB: number; offset: number; alongA: number; alongB: number };
}

/** Stops of light, for every place and by the tone its surroundings have as found. */
export interface LightStep {
  kind: "light";
  flat: number;
  around: { spread: Spread; stops: Float32Array } | undefined;
}
