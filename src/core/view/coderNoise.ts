/** Noise that comes through a JPEG coder, so that its steps do not show on smooth ground. Units: levels of 255. */
export interface CoderNoise {
  /** Amplitude of the noise of lightness: see noiseRow. */
  light: number;
  /** Amplitude of the waves over a block's colour differences, along and across it. */
  wave: number;
  /** How far blocks one below the other are set apart in them. */
  between: number;
}

/** Pixels to a side of a coder's block, and how many blocks are set apart. */
const BLOCK = 8;
const BLOCKS_APART = 4;
/** The coarsest wave of a block of eight is this high for each unit of its coefficient. */
const HEIGHT = Math.SQRT1_2 / 4;
/** A wave's coefficient, at the least: its pixels then spread over two levels, so that rounding to one keeps their mean. */
const LEAST_WAVE = 6;
/** Steps of colour differences at quality 50: of a block's mean, and of its coarsest waves. */
const [MEAN_STEP, WAVE_STEP] = [17, 18];

/**
 * The noise for a quality of the usual scale.
 *
 * Source  measured: docs/decisions/0014-eight-bits.md. Steps: ITU-T T.81, table K.2, scaled as the Independent JPEG Group's coder does.
 */
export function jpegNoise(quality: number): CoderNoise {
  const scale = quality < 50 ? 50 / quality : 2 - quality / 50;
  const step = (atFifty: number) => Math.max(Math.floor(atFifty * scale + 0.5), 1);
  const waveStep = step(WAVE_STEP);
  return {
    light: Math.min(Math.max(1 + (95 - quality) / 5, 1), 3),
    // As many whole steps as it takes: so much the coder keeps unchanged.
    wave: HEIGHT * waveStep * Math.ceil(LEAST_WAVE / waveStep),
    between: step(MEAN_STEP) / BLOCK,
  };
}

/** Pixels after which waves begin anew, along and across. */
export const WAVES_PERIOD = 128;

/**
 * Offsets of red, green and blue that change no luminance but colour differences: each block of eight by eight pixels has a wave along it
 * and one across, of either sign, in either difference. They are what a coder keeps of a block: with them its rounding, and its reader's,
 * keep the mean colour, where white noise would be taken away by the one and do nothing for the other.
 *
 * Shape   rows of WAVES_PERIOD offsets in levels, row after row, for each channel.
 * Source  our choice, compared with white noise: docs/decisions/0014-eight-bits.md. Channels of colour differences: ITU-T T.871.
 */
export function colourWaves({ wave, between }: CoderNoise): [red: Float32Array, green: Float32Array, blue: Float32Array] {
  const waves = [0, 1, 2].map(() => new Float32Array(WAVES_PERIOD * WAVES_PERIOD)) as [Float32Array, Float32Array, Float32Array];
  for (let y = 0, i = 0; y < WAVES_PERIOD; y++) {
    for (let x = 0; x < WAVES_PERIOD; x++, i++) {
      const [cb, cr] = [0, 1].map((difference) => {
        const [column, row] = [Math.floor(x / BLOCK), Math.floor(y / BLOCK)];
        const signs = hashOf(column, row, difference);
        const along = (signs & 1 ? wave : -wave) * cosine(x % BLOCK);
        const across = (signs & 2 ? wave : -wave) * cosine(y % BLOCK);
        // Of blocks below each other each is set apart by another part of a step, in an order of its column's own.
        const order = hashOf(column, Math.floor(row / BLOCKS_APART), difference + 2) % BLOCKS_APART;
        const turn = ((row % BLOCKS_APART) + order) % BLOCKS_APART;
        return along + across + between * ((turn + 0.5) / BLOCKS_APART - 0.5);
      }) as [number, number];
      waves[0][i] = 1.402 * cr;
      waves[1][i] = -0.344136 * cb - 0.714136 * cr;
      waves[2][i] = 1.772 * cb;
    }
  }
  return waves;
}

function cosine(pixel: number): number {
  return Math.cos(((2 * pixel + 1) * Math.PI) / (2 * BLOCK));
}

function hashOf(x: number, y: number, which: number): number {
  let h = Math.imul(x + 31 * y + 1009 * which + 1, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 8;
}
