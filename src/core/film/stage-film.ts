/**
 * A film shrunk to what a screen shows, with all that a finish may still change: the picture as rendered and as a filter
 * left it, and each light layer. A second, smaller copy serves what looks at the whole picture (finishing/around.ts).
 * Half floats; radiances in units of displayed white.
 */
import { halfBits, halfValues } from '../math/half';
import { asciiJson } from './ascii-json';
import { type Cleaned, groupLayers, NOT_CLEANED } from './finished-light';
import type { Finish } from '../brief/brief';
import { dimLight, layerGains, settleLayers } from './dimmers';
import {
  coverageOf,
  foremostIds,
  isNeutralMask,
  type MaskAdjustment,
  maskLight,
  type MaskName,
  type MaskOf,
  namesOf
} from './masks';
import { mixDenoised } from './denoised';
import { type FilmLayers, layerCount, tileFloats, tilesOf } from './film';
import { BEHIND_SHARE, LIGHT, lightOfTile, shrink, shrinkFactor } from './light';
import type { FilmSource } from './store';

/** Longest side, px; and of the copy that serves what looks at the whole picture. */
export const STAGE_PX = 1440;
export const AROUND_PX = 720;

export interface StagePlanes {
  /** Pixels of the film to one of these, along a side. */
  factor: number;
  width: number;
  height: number;
  /** LIGHT halves a pixel. */
  raw: Uint16Array;
  clean: Uint16Array | null;
  /** Three halves a group and pixel. */
  layers: Uint16Array;
  /** A half a mask and pixel: its coverage. */
  masks: Uint16Array;
  /** What is foremost at each pixel, by ids from 1 of its parts and materials; empty where the film keeps no masks. */
  ids: Record<MaskOf, Uint16Array>;
}

export interface StageFilm {
  /** Those whose coverage it has. */
  masks: MaskName[];
  /** Names that the ids stand for. */
  names: Record<MaskOf, readonly string[]>;
  groups: string[];
  /** Mean luminance of the denoised picture over that of the rendered one; null where it is not denoised. */
  luminanceRatio: number | null;
  stage: StagePlanes;
  small: StagePlanes;
}

export interface StagedFilm {
  film: FilmSource;
  layers: FilmLayers;
  width: number;
  height: number;
  /** Luminance of displayed white, cd/m2. */
  white: number;
  cleaned?: Cleaned;
}

/** `denoise`: how much of the filter its layers are to show, 0 to 1. `masks`: those whose coverage is wanted. */
export async function takeStageFilm(
  { film, layers, width, height, white, cleaned = NOT_CLEANED }: StagedFilm,
  denoise: number,
  masks: readonly MaskName[] = [],
  largest = STAGE_PX
): Promise<StageFilm> {
  const groups = layers.groups.length;
  const factor = shrinkFactor(width, height, largest);
  const smaller = shrinkFactor(width, height, Math.min(AROUND_PX, largest));
  const planesOf = (by: number): StagePlanes => {
    const [w, h] = [Math.ceil(width / by), Math.ceil(height / by)];
    return {
      factor: by,
      width: w,
      height: h,
      raw: new Uint16Array(w * h * LIGHT),
      clean: cleaned.picture ? new Uint16Array(w * h * LIGHT) : null,
      layers: new Uint16Array(w * h * groups * 3),
      masks: new Uint16Array(w * h * masks.length),
      ids: { part: new Uint16Array(layers.aovs ? w * h : 0), material: new Uint16Array(layers.aovs ? w * h : 0) }
    };
  };
  const stage = planesOf(factor);
  const small = planesOf(smaller);
  const sums = { raw: 0, clean: 0 };
  for (const tile of tilesOf(width, height)) {
    const state = film.state(tile.index);
    if (!state || state.samples === 0) continue;
    const pixels = tile.width * tile.height;
    const data = await film.read(tile.index, tileFloats(pixels, layerCount(layers)));
    const denoised = cleaned.picture ? await cleaned.picture.read(tile) : null;
    const put = (light: Float32Array, channels: number, plane: 'raw' | 'clean' | 'layers' | 'masks') => {
      for (const [planes, by] of [
        [stage, factor],
        [small, smaller]
      ] as const) {
        const cell = shrink(light, tile.width, tile.height, channels, by);
        const to = planes[plane]!;
        for (let y = 0; y < cell.height; y++) {
          const first = ((tile.y / by + y) * planes.width + tile.x / by) * channels;
          for (let i = 0; i < cell.width * channels; i++) {
            const value = cell.data[y * cell.width * channels + i]!;
            const isShare = plane === 'masks' || (plane !== 'layers' && i % LIGHT === BEHIND_SHARE);
            to[first + i] = halfBits(isShare ? value : Math.min(MOST, value / white));
          }
        }
      }
    };
    const raw = lightOfTile(data, pixels, state.samples);
    put(raw, LIGHT, 'raw');
    if (denoised) {
      const clean = lightOfTile(mixDenoised(data, tile, state.samples, denoised, 1), pixels, state.samples);
      put(clean, LIGHT, 'clean');
      for (let i = 0; i < pixels; i++) {
        sums.raw += raw[i * LIGHT + 1]!;
        sums.clean += clean[i * LIGHT + 1]!;
      }
    }
    if (groups > 0) {
      const own = groupLayers(data, pixels, layers, state.samples);
      if (denoised && denoise > 0)
        settleLayers(own, (await cleaned.layers?.read(tile)) ?? null, denoised, groups, pixels, denoise);
      put(own, groups * 3, 'layers');
    }
    if (masks.length > 0) put(coverageOf(data, pixels, layers, state.samples, masks), masks.length, 'masks');
    if (layers.aovs)
      for (const kind of ['part', 'material'] as const) {
        const ids = foremostIds(data, pixels, layers, kind);
        for (let y = 0; y < tile.height; y += factor)
          for (let x = 0; x < tile.width; x += factor)
            stage.ids[kind][((tile.y + y) / factor) * stage.width + (tile.x + x) / factor] = ids[y * tile.width + x]!;
      }
  }
  const luminanceRatio = cleaned.picture && sums.raw > 0 ? sums.clean / sums.raw : null;
  const names = { part: namesOf(layers, 'part'), material: namesOf(layers, 'material') };
  return { groups: layers.groups, masks: [...masks], names, luminanceRatio, stage, small };
}

/** The light and layers of planes at half their size, for what only looks around while a slider moves. */
export function halved(planes: StagePlanes, { groups, masks }: Pick<StageFilm, 'groups' | 'masks'>): StagePlanes {
  const values = halfValues();
  const [width, height] = [Math.ceil(planes.width / 2), Math.ceil(planes.height / 2)];
  const half = (data: Uint16Array, channels: number) => {
    const out = new Uint16Array(width * height * channels);
    for (let y = 0, o = 0; y < height; y++) {
      const below = 2 * y + 1 < planes.height ? planes.width * channels : 0;
      for (let x = 0; x < width; x++) {
        const beside = 2 * x + 1 < planes.width ? channels : 0;
        let i = (2 * y * planes.width + 2 * x) * channels;
        for (let c = 0; c < channels; c++, i++, o++) {
          const sum =
            values[data[i]!]! +
            values[data[i + beside]!]! +
            values[data[i + below]!]! +
            values[data[i + beside + below]!]!;
          out[o] = halfBits(sum / 4);
        }
      }
    }
    return out;
  };
  return {
    factor: planes.factor * 2,
    width,
    height,
    raw: half(planes.raw, LIGHT),
    clean: planes.clean && half(planes.clean, LIGHT),
    layers: half(planes.layers, groups.length * 3),
    masks: half(planes.masks, masks.length),
    ids: planes.ids
  };
}

// The largest half.
const MOST = 65_504;

/** The light of some rows before dimmers and masks, by how much it is denoised: kept from one step to the next. */
export interface KeptLight {
  amount?: number;
  light?: Float32Array;
}

/**
 * The light of some rows as a finish wants it, LIGHT floats a pixel, in units of displayed white. `kept`: of the same rows
 * of the same planes.
 */
export function stageLight(
  { groups, masks: names }: Pick<StageFilm, 'groups' | 'masks'>,
  { width, raw, clean, layers, masks: covers }: StagePlanes,
  { denoise, lamps, masks }: Pick<Finish, 'denoise' | 'lamps' | 'masks'>,
  from: number,
  count: number,
  kept: KeptLight = {}
): Float32Array {
  const values = halfValues();
  const amount = clean ? denoise : 0;
  if (kept.amount !== amount || !kept.light) {
    const first = from * width * LIGHT;
    const mixed = new Float32Array(count * width * LIGHT);
    for (let i = 0; i < mixed.length; i++) {
      const own = values[raw[first + i]!]!;
      mixed[i] = amount > 0 ? own + (values[clean![first + i]!]! - own) * amount : own;
    }
    Object.assign(kept, { amount, light: mixed });
  }
  const out = kept.light!.slice();
  const gains = layerGains(lamps, groups);
  const floats = groups.length * 3;
  const own = layers.subarray(from * width * floats, (from + count) * width * floats);
  dimLight(out, own, groups.length, count * width, gains, values);
  // those whose coverage has not come yet are not adjusted yet
  const wanted = names.map(
    (name): MaskAdjustment =>
      masks.find((mask) => mask.of === name.of && mask.name === name.name) ?? {
        ...name,
        exposure_ev: 0,
        warmth_mired: 0,
        saturation: 0
      }
  );
  if (wanted.some((mask) => !isNeutralMask(mask))) {
    const own = new Float32Array(count * width * wanted.length);
    for (let i = 0; i < own.length; i++) own[i] = values[covers[from * width * wanted.length + i]!]!;
    maskLight(out, own, wanted, count * width);
  }
  return out;
}

const asciiBytes = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));

/** As one file: the length of a head, the head as JSON, and the halves, each at an even place. */
export function packStageFilm({ groups, masks, names, luminanceRatio, stage, small }: StageFilm): Uint8Array {
  const planes = [stage, small];
  const head = asciiBytes(
    asciiJson({
      groups,
      masks,
      names,
      luminanceRatio,
      planes: planes.map(({ factor, width, height, clean }) => ({ factor, width, height, clean: clean !== null }))
    })
  );
  const parts = planes.flatMap(({ raw, clean, layers, masks: covers, ids }) => [
    raw,
    ...(clean ? [clean] : []),
    layers,
    covers,
    ids.part,
    ids.material
  ]);
  const start = 4 + head.length + (head.length % 2);
  const out = new Uint8Array(start + parts.reduce((sum, p) => sum + p.byteLength, 0));
  new DataView(out.buffer).setUint32(0, head.length, true);
  out.set(head, 4);
  let at = start;
  for (const part of parts) {
    out.set(new Uint8Array(part.buffer, part.byteOffset, part.byteLength), at);
    at += part.byteLength;
  }
  return out;
}

interface Head extends Pick<StageFilm, 'groups' | 'masks' | 'names' | 'luminanceRatio'> {
  planes: { factor: number; width: number; height: number; clean: boolean }[];
}

export function openStageFilm(file: ArrayBuffer): StageFilm {
  const length = new DataView(file).getUint32(0, true);
  const { planes, ...rest } = JSON.parse(String.fromCharCode(...new Uint8Array(file, 4, length))) as Head;
  let at = 4 + length + (length % 2);
  const take = (halves: number) => {
    const part = new Uint16Array(file, at, halves);
    at += part.byteLength;
    return part;
  };
  const [stage, small] = planes.map(({ factor, width, height, clean }) => ({
    factor,
    width,
    height,
    raw: take(width * height * LIGHT),
    clean: clean ? take(width * height * LIGHT) : null,
    layers: take(width * height * rest.groups.length * 3),
    masks: take(width * height * rest.masks.length),
    ids: {
      part: take(rest.names.part.length > 0 ? width * height : 0),
      material: take(rest.names.part.length > 0 ? width * height : 0)
    }
  }));
  return { ...rest, stage: stage!, small: small! };
}
