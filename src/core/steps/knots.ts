/** Knots of tables over the blurred tone and of zones switched off: smooth, so that few do. */
export const SOFT_KNOTS = 640;
