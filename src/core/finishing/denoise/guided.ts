/**
 * Our own denoising filter: fast, for looks while the picture comes and where the learned one cannot be had. Radiance
 * is divided by reflectance, smoothed by an edge-avoiding a-trous wavelet transform, and multiplied back. What a tap
 * counts falls with its difference in normal and reflectance, and in luminance measured against the standard error that
 * the two halves of the film give. Sources: Dammertz et al. 2010, Edge-Avoiding A-Trous Wavelet Transform for fast
 * Global Illumination Filtering; Schied et al. 2017, Spatiotemporal Variance-Guided Filtering (the luminance weight and
 * how variance is carried on; ours is of one frame). Cost: 25 taps a level and pixel, 9 with one sample a pixel, where
 * time counts most; what goes over pixels is the kernel's (kernel/host/guided-filter.ts), and guided-reference.ts its
 * slow reference. It looks 64 px far and the 3 of its error estimate.
 * Limits: shadows softer than the grain lose their edge, light behind glass that follows no feature is smeared; the
 * learned filter keeps both.
 */
import type { Filter } from './filter';

const LEVELS = 5;
/** A difference of so many standard errors weighs 1/e. */
export const ERRORS = 5;
// Squared differences of reflectance and of normals (0 to 4) that weigh 1/e are one over the squares of these.
export const REFLECTANCE_SCALE = Math.sqrt(12);
export const NORMAL_SCALE = Math.sqrt(4);
/**
 * A pixel is alone when all taps together weigh less than this (itself 0.14, all alike 1); its guides then count so
 * much.
 */
export const LONE = 0.4;
export const LONE_EASE = 0.1;
/** Darker than this is not divided by: what a black surface mirrors is no light upon it. */
export const MIN_REFLECTANCE = 0.04;
/** A pixel so many times as bright as all but one around it is a speck; the second is for one sample a pixel. */
export const SPECK = 2;
export const BLIND_SPECK = 6;
// With one sample a pixel luminance says nothing before so many levels have joined some.
const BLIND_LEVELS = 3;
/** Planes of light: r, g, b, squared standard error of its luminance. */
export const LIGHT = 4;
/** Planes of guides: reflectance 3, normal 3, both scaled so that a squared difference of 1 weighs 1/e. */
export const GUIDES = 6;

/** What goes over all pixels. Slots: 0 and 1 hold light in turn, 2 a first idea of it. */
export interface GuidedSteps {
  /**
   * Makes the guides and, in slot 0, light over reflectance with its error, from a filter's input. `blind`: of one
   * sample a pixel, whose guides are grain themselves where light may go two ways, as at glass: they are smoothed.
   */
  prepare(planes: Float32Array, width: number, height: number, blind: boolean): void;
  /**
   * One level from slot to slot, taps `step` px apart, `radius` to each side; pixels are compared by the luminance of
   * slot `known` too, unless it is null.
   */
  smooth(from: Slot, known: Slot | null, to: Slot, step: number, radius: 1 | 2): void;
  /**
   * A slot's light times the reflectance of the guides: what was divided by was each pixel's own, what it is multiplied
   * by is what its guides have become.
   */
  finish(slot: Slot): Float32Array;
}
export type Slot = 0 | 1 | 2;

const REACH_PX = 80;

export const createGuidedFilter = (steps: GuidedSteps, between?: () => Promise<void>): Filter => ({
  channels: 10,
  linear: true,
  reachPx: REACH_PX,
  async run(planes, height, width) {
    const blind = planes[9 * width * height]! < 0;
    steps.prepare(planes, width, height, blind);
    // a first idea of the luminance, by the guides alone: a single pixel's own is too noisy to compare others with
    if (!blind) steps.smooth(0, null, 2, 1, 2);
    let at: 0 | 1 = 0;
    for (let level = 0; level < LEVELS; level++) {
      await between?.();
      const known = blind && level < BLIND_LEVELS ? null : level === 0 ? 2 : at;
      steps.smooth(at, known, at === 0 ? 1 : 0, 1 << level, blind ? 1 : 2);
      at = at === 0 ? 1 : 0;
    }
    return steps.finish(at);
  }
});
