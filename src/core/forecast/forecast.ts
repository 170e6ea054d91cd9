/**
 * What a proof will take, from a probe of its brief: little patches rendered at two sizes of the picture, which tell
 * the time of a sample and the grain that one leaves. Squared grain falls with the samples, so a patch says when its
 * like will stop. Between the two sizes, and a little beyond, both go with the logarithm of the size: the larger the
 * picture, the smaller the share of its pixels that edges cross.
 */
import { FIRST_DECISION, passEnds } from '../film/film';
import { FINE_FROM_SAMPLES } from '../finishing/denoise/filter';
import { MAX_PIXELS } from '../finishing/denoise/pieces';

/** What patches at one size of the picture said. */
export interface ProbeAt {
  /** Of the picture that they are patches of. */
  longSide_px: number;
  /** Of a processor, for a sample of a pixel. */
  secondsPerSample: number;
  /** Of each patch: squared raw grain that one sample a pixel would leave, L* squared. */
  squaredGrain: number[];
}

export interface Probe {
  /** From the claim to the first sample: reading the model, its light, the threads. */
  setupSeconds: number;
  /** The smaller size first. */
  at: [ProbeAt, ProbeAt];
  /** Of the rendering process. */
  memoryBytes: number;
  /** Of its layers, beside the picture. */
  layers: number;
}

/** What is known of this machine. */
export interface Machine {
  threads: number;
  /** Of denoising, measured; null before the first. */
  denoiseSecondsPerMegapixel: number | null;
  /** How long earlier proofs of the project took against their forecast; empty before the first. */
  ratios: number[];
}

export interface ForecastOf {
  width_px: number;
  height_px: number;
  samples: number;
  grain: number | null;
  /** Samples before which grain ends nothing. */
  min_samples: number;
  minutes: number | null;
  denoised: boolean;
}

export interface Forecast {
  /** From the press to the finished picture. */
  seconds: number;
  /** Of it, rendering. */
  renderSeconds: number;
  /** Nine of ten should end between these. */
  low: number;
  high: number;
  /** Mean over the picture. */
  samples: number;
  /** Raw, L*. */
  grain: number;
  /** What will end it. */
  endsBy: 'grain' | 'samples' | 'time';
  memoryBytes: number;
  diskBytes: number;
}

// Of a machine that has not denoised yet, seconds a megapixel, and what starting the filter takes; bench/denoise-sizes.
const DENOISE_FIRST_GUESS = 19;
export const DENOISE_START_S = 1.5;
// Of its time, what the smaller filter takes that first samples get.
const DENOISE_QUICKLY = 0.15;
// What the filter's process takes: its start, and a pixel of a piece; bench/denoise-sizes.
const DENOISE_START_BYTES = 3e8;
const DENOISE_PIXEL_BYTES = 1000;
// What threads lose by waiting for each other at the end of a pass.
const THREADS_BUSY = 0.95;
// Beyond the probe's sizes what was seen between them goes on only so far.
const FARTHEST = 1.2;
// Before a project has proofs to judge by.
const USUAL_SPREAD = 0.25;
const MIN_SPREAD = 0.1;
// A film on disk: 64 bytes a pixel in two slots, its layers, and 12 of the denoised one.
const FILM_BYTES = 128;
const LAYER_BYTES = 24;
const DENOISE_BYTES = 12;

/** What the denoising of a picture takes that has so many samples a pixel. */
export const denoiseSeconds = (
  { denoiseSecondsPerMegapixel }: Pick<Machine, 'denoiseSecondsPerMegapixel'>,
  pixels: number,
  samples: number
): number =>
  DENOISE_START_S +
  ((denoiseSecondsPerMegapixel ?? DENOISE_FIRST_GUESS) * (samples < FINE_FROM_SAMPLES ? DENOISE_QUICKLY : 1) * pixels) /
    1e6;

export function forecast(probe: Probe, machine: Machine, of: ForecastOf): Forecast {
  const { threads, ratios } = machine;
  const pixels = of.width_px * of.height_px;
  const [small, large] = probe.at;
  const along =
    Math.log(Math.max(of.width_px, of.height_px) / small.longSide_px) / Math.log(large.longSide_px / small.longSide_px);
  const t = Math.min(FARTHEST, Math.max(0, along));
  const between = (what: (at: ProbeAt) => number) => Math.max(0, what(small) + (what(large) - what(small)) * t);
  const correction = ratios.length > 0 ? median(ratios) : 1;
  const perSample = (between((at) => at.secondsPerSample) / (threads * THREADS_BUSY)) * correction;
  const stops = (at: ProbeAt) => at.squaredGrain.map((one) => stopOf(one, of));
  let samples = between((at) => mean(stops(at)));
  let endsBy: Forecast['endsBy'] = of.grain !== null && samples < of.samples * 0.98 ? 'grain' : 'samples';
  let render = samples * pixels * perSample;
  if (of.minutes !== null && render > of.minutes * 60) {
    endsBy = 'time';
    samples *= (of.minutes * 60) / render;
    render = of.minutes * 60;
  }
  const left = (at: ProbeAt) =>
    mean(
      at.squaredGrain.map(
        (one) => one / Math.max(1, Math.min(stopOf(one, of), endsBy === 'time' ? samples : Number.POSITIVE_INFINITY))
      )
    );
  const denoised = of.denoised ? denoiseSeconds(machine, pixels, samples) : 0;
  // when it starts the render's memory is free again
  const denoiseBytes = of.denoised ? DENOISE_START_BYTES + DENOISE_PIXEL_BYTES * Math.min(pixels, MAX_PIXELS) : 0;
  const seconds = probe.setupSeconds + render + denoised;
  const spread =
    ratios.length < 3
      ? USUAL_SPREAD
      : Math.max(MIN_SPREAD, Math.min(USUAL_SPREAD, 1.6 * deviation(ratios.map((r) => Math.log(r / correction)))));
  return {
    seconds,
    renderSeconds: render,
    low: seconds / (1 + spread),
    high: seconds * (1 + spread),
    samples,
    grain: Math.sqrt(between(left)),
    endsBy,
    memoryBytes: Math.max(probe.memoryBytes, denoiseBytes),
    diskBytes: filmDiskBytes(pixels, probe.layers, of.denoised)
  };
}

/** Of a film and what is kept with it. */
export const filmDiskBytes = (pixels: number, layers: number, denoised: boolean): number =>
  pixels * (FILM_BYTES + LAYER_BYTES * layers + (denoised ? DENOISE_BYTES : 0));

/** The samples at which a patch stops whose like leaves so much squared grain with one. */
function stopOf(squaredGrain: number, { samples, grain, min_samples }: ForecastOf): number {
  if (grain === null) return samples;
  for (const end of passEnds(samples))
    if (end >= Math.max(FIRST_DECISION, min_samples) && squaredGrain / end <= grain * grain) return end;
  return samples;
}

const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);
const deviation = (values: readonly number[]) => Math.sqrt(mean(values.map((v) => v * v)));

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
