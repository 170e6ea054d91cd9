/** What a denoising filter is to the finish: functions of planes, whoever runs them. */
export interface Filter {
  /**
   * Planes of its input: colour 3, reflectance 3 (0 to 1), normal 3 (halved and shifted to 0 to 1), and if it has a
   * tenth the squared standard error of the colour's luminance, below 0 where it is not known.
   */
  channels: number;
  /** Whether colour goes in and comes out as it is, scaled only; else through the curve. */
  linear: boolean;
  /**
   * How far from a pixel its result looks, px, a multiple of ALIGN_PX: with this much beyond its edge a piece comes out
   * as it would in the whole.
   */
  reachPx: number;
  /** NCHW planes of `height` x `width`, both multiples of ALIGN_PX; gives three planes of the same size. */
  run(input: Float32Array, height: number, width: number): Promise<Float32Array>;
  /** For a filter whose result is a mean of two looks: one of them, in half the time, which has no less grain. */
  once?(input: Float32Array, height: number, width: number): Promise<Float32Array>;
  /** Takes the grain out of reflectance and normal; one that has this wants them clean. */
  clarify?: Clarify;
}

export interface Clarify {
  reachPx: number;
  /** The six planes of reflectance and normal; gives six of the same size. */
  run(features: Float32Array, height: number, width: number): Promise<Float32Array>;
}

/** The network halves its input four times. */
export const ALIGN_PX = 16;

/**
 * From so many samples on the larger filter is worth its time: with four it brings 0.961 instead of 0.945 of likeness
 * (bench/denoise), for six times the wait.
 */
export const FINE_FROM_SAMPLES = 16;
