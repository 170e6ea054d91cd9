/** What a denoising filter is to the finish: a function of planes, whoever runs it. */
export interface Filter {
  /**
   * Planes of its input: colour 3, reflectance 3 (0 to 1), normal 3 (halved and shifted to 0 to 1), and if it has a tenth the squared
   * standard error of the colour's luminance, below 0 where it is not known.
   */
  channels: number;
  /** Whether colour goes in and comes out as it is, scaled only; else through the curve. */
  linear: boolean;
  /** NCHW planes of `height` x `width`, both multiples of ALIGN_PX; gives three planes of the same size. */
  run(input: Float32Array, height: number, width: number): Promise<Float32Array>;
}

/** The network halves its input four times. */
export const ALIGN_PX = 16;
/** What the network sees around a pixel: with this much beyond its edge a piece comes out as it would in the whole. Measured: 96 is exact, 64 is not. */
export const HALO_PX = 96;
