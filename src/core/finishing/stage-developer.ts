/**
 * Develops a stage film again and again while its finish is adjusted: the same steps as an export, over some of its rows.
 * What did not change is kept: the light while only tones move, the scattered light while only its share does.
 */
import { canonicalJson, type Finish } from '../brief/brief';
import { lightness } from '../color/lightness';
import type { ColourTable } from '../color/table';
import { luminanceAt } from '../color/spaces';
import { LIGHT } from '../film/light';
import { halved, type KeptLight, type StageFilm, stageLight, type StagePlanes } from '../film/stage-film';
import { lookUp, tableOf } from '../math/curve-table';
import { type SheetShare, WHOLE_SHEET } from '../output/size';
import { AroundMaps, needsAround, NOTHING_AROUND } from './around';
import type { BackdropImage } from './background';
import { createDeveloper } from './develop';
import { encodeSrgb8 } from './encode-rows';
import { type PressProof, showOnPress } from './press-proof';
import { surfaceAdjustments } from './surface';

/** How many of the pixels that were counted have each lightness, in whole L* from 0 to 100. */
export interface Histogram {
  counts: Uint32Array;
  /** How many have a channel at white, and how many are black, as an 8-bit file has them. */
  white: number;
  black: number;
}

export interface DevelopedRows extends Histogram {
  /** Of the whole picture; `y` is the first row of these. */
  width: number;
  height: number;
  y: number;
  /** rgba8, sRGB. */
  pixels: Uint8Array<ArrayBuffer>;
  /** Pixels of these rows whose colour a press cannot hold; 0 without one. */
  lost: number;
}

// Rows beyond its own that a share may look at: twice the largest radius of sharpening.
const HALO = 12;
const LIGHTNESS = tableOf((y) => lightness(Math.min(1, y)));

/** What a finish needs beside the film. */
export interface StageExtras {
  within?: SheetShare;
  backdrop?: BackdropImage | null;
  table?: ColourTable | null;
  /** Shown as a press prints it, with what it cannot hold marked where that is wanted. */
  press?: { proof: PressProof; marks: boolean } | null;
}

/** `draft`: of the smaller copy, for as long as a slider moves. */
export type StageLevel = 'draft' | 'full';

export class StageDeveloper {
  private readonly draft: Rows;
  private readonly full: Rows;

  /** Of the rows of a share, counted from 0. */
  constructor(film: StageFilm, share: { index: number; of: number } = { index: 0, of: 1 }) {
    this.full = new Rows(film, film.stage, () => film.small, share);
    // what lies around is coarse anyway, and is made anew at each step of a dimmer
    this.draft = new Rows(film, film.small, () => halved(film.small, film), share);
  }

  develop(finish: Finish, on: StageExtras = {}, level: StageLevel = 'full'): DevelopedRows {
    return this[level].develop(finish, on);
  }
}

/** Some rows of a copy. */
class Rows {
  private readonly from: number;
  private readonly to: number;
  private readonly top: number;
  private readonly rows: number;
  private whole: StagePlanes | null = null;
  private readonly keptLight: KeptLight = {};
  private readonly keptAround: KeptLight = {};
  private light: { key: string; data: Float32Array; maps: AroundMaps | null } | null = null;

  constructor(
    private readonly film: StageFilm,
    private readonly planes: StagePlanes,
    /** Of the whole picture, for what looks around. */
    private readonly takeWhole: () => StagePlanes,
    share: { index: number; of: number }
  ) {
    const { height } = planes;
    this.from = Math.floor((height * share.index) / share.of);
    this.to = Math.floor((height * (share.index + 1)) / share.of);
    this.top = Math.max(0, this.from - HALO);
    this.rows = Math.min(height, this.to + HALO) - this.top;
  }

  develop(finish: Finish, extras: StageExtras): DevelopedRows {
    const { within = WHOLE_SHEET, backdrop = null, table = null, press = null } = extras;
    const { width, height, factor } = this.planes;
    const light = this.lightOf(finish);
    if (needsAround(finish)) light.maps ??= this.mapsOf(finish);
    const around = needsAround(finish) ? light.maps!.of(finish) : NOTHING_AROUND;
    const develop = createDeveloper({ width, height, white: 1, finish, within, backdrop, around, table });
    let linear = new Float32Array(width * this.rows * 4);
    develop({ x: 0, y: this.top, width, height: this.rows, light: light.data }, linear, this.top);
    const first = this.from - this.top;
    const count = this.to - this.from;
    const adjustments = surfaceAdjustments(finish, height / within.height, 1 / factor);
    for (const [i, { apply }] of adjustments.entries()) {
      // the last one gives only the rows that are wanted
      const last = i === adjustments.length - 1;
      const place = last ? { width, first, count, y: this.from } : { width, first: 0, count: this.rows, y: this.top };
      const out = new Float32Array(width * place.count * 4);
      apply(linear, out, place);
      linear = out;
    }
    if (adjustments.length === 0) linear = linear.subarray(first * width * 4, (first + count) * width * 4);
    const lost = press ? showOnPress(linear, width, this.from, press.proof, press.marks) : 0;
    const pixels = new Uint8Array(width * count * 4);
    encodeSrgb8(linear, width, this.from, pixels);
    return { y: this.from, width, height, pixels, lost, ...histogramOf(linear, pixels) };
  }

  private lightOf(finish: Finish) {
    const key = canonicalJson([finish.denoise, finish.lamps, finish.masks]);
    if (this.light?.key !== key) {
      const data = stageLight(this.film, this.planes, finish, this.top, this.rows, this.keptLight);
      this.light = { key, data, maps: null };
    }
    return this.light;
  }

  private mapsOf(finish: Finish): AroundMaps {
    this.whole ??= this.takeWhole();
    const { width, height } = this.whole;
    const light = stageLight(this.film, this.whole, finish, 0, height, this.keptAround);
    const data = new Float32Array(width * height * 3);
    for (let i = 0; i < width * height; i++) for (let c = 0; c < 3; c++) data[i * 3 + c] = light[i * LIGHT + c]!;
    return new AroundMaps({ data, width, height }, 1);
  }
}

// Every so many pixels one is counted.
const STEP = 3;

function histogramOf(linear: Float32Array, pixels: Uint8Array): Histogram {
  const counts = new Uint32Array(101);
  let [white, black] = [0, 0];
  for (let i = 0; i < pixels.length; i += 4 * STEP) {
    const at = Math.round(lookUp(LIGHTNESS, luminanceAt(linear, i)));
    counts[at] = counts[at]! + 1;
    if (pixels[i] === 255 || pixels[i + 1] === 255 || pixels[i + 2] === 255) white++;
    else if (pixels[i] === 0 && pixels[i + 1] === 0 && pixels[i + 2] === 0) black++;
  }
  return { counts, white, black };
}

/** Of all shares. */
export function joinHistograms(parts: readonly Histogram[]): Histogram {
  const counts = new Uint32Array(101);
  for (const part of parts) for (let i = 0; i < 101; i++) counts[i] = counts[i]! + part.counts[i]!;
  return {
    counts,
    white: parts.reduce((sum, p) => sum + p.white, 0),
    black: parts.reduce((sum, p) => sum + p.black, 0)
  };
}
