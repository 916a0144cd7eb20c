import type { ColourStepHandler } from "../stepHandler";

/** Colour through a matrix. */
export const matrix: ColourStepHandler<"matrix"> = {
  weight: 2,
  apply(machine, { matrix: own }) {
    const { plane: p, padded: n, run } = machine;
    run.throughMatrix(p.red, p.green - p.red, n, machine.numbers(own));
  },
};
