/**
 * Masks of parts and materials, from the coverages that a film keeps of them (film.ts, AOV_OBJECTS and AOV_MATERIALS): how
 * much of each pixel a part or a material covers, with smooth edges as its samples give them.
 */
import { warmthGain } from '../color/kelvin';
import { AOV_MATERIALS, AOV_OBJECTS, type FilmLayers, ID_PLACES, layerCount, layersAt } from './film';
import { LIGHT } from './light';

export type MaskOf = 'part' | 'material';

/** A part or a material by its name in the film. */
export interface MaskName {
  of: MaskOf;
  name: string;
}

/** What is done to it afterwards. */
export interface MaskAdjustment extends MaskName {
  exposure_ev: number;
  warmth_mired: number;
  saturation: number;
}

export const isNeutralMask = ({ exposure_ev, warmth_mired, saturation }: MaskAdjustment): boolean =>
  exposure_ev === 0 && warmth_mired === 0 && saturation === 0;

const FIRST: Record<MaskOf, number> = { part: AOV_OBJECTS, material: AOV_MATERIALS };
export const namesOf = ({ aovs }: FilmLayers, of: MaskOf): readonly string[] =>
  aovs ? (of === 'part' ? aovs.objects : aovs.materials) : [];

/** Where the places of ids of pixel `i` begin in a tile. */
const idsAt = (i: number, pixels: number, layers: FilmLayers, of: MaskOf) =>
  layersAt(i, pixels, layerCount(layers)) + layers.groups.length * 3 + FIRST[of];

/** Coverage of each mask, 0 to 1, one float a mask and pixel; parts of one name are one. */
export function coverageOf(
  data: Float32Array,
  pixels: number,
  layers: FilmLayers,
  samples: number,
  masks: readonly MaskName[]
): Float32Array {
  const out = new Float32Array(pixels * masks.length);
  for (const [m, { of, name }] of masks.entries()) {
    // ids count from 1
    const ids = new Set(namesOf(layers, of).flatMap((n, i) => (n === name ? [i + 1] : [])));
    if (ids.size === 0) continue;
    for (let i = 0; i < pixels; i++) {
      const at = idsAt(i, pixels, layers, of);
      let covered = 0;
      for (let place = 0; place < ID_PLACES; place++)
        if (ids.has(Math.round(data[at + place * 2]!))) covered += data[at + place * 2 + 1]!;
      out[i * masks.length + m] = Math.min(1, covered / samples);
    }
  }
  return out;
}

/** The id that covers most of each pixel, from 1; 0 where nothing does. */
export function foremostIds(data: Float32Array, pixels: number, layers: FilmLayers, of: MaskOf): Uint16Array {
  const out = new Uint16Array(pixels);
  if (!layers.aovs) return out;
  for (let i = 0; i < pixels; i++) {
    const at = idsAt(i, pixels, layers, of);
    let most = 0;
    for (let place = 0; place < ID_PLACES; place++)
      if (data[at + place * 2 + 1]! > most) {
        most = data[at + place * 2 + 1]!;
        out[i] = Math.round(data[at + place * 2]!);
      }
  }
  return out;
}

/** A colour in sRGB that no near id has: hues by the golden angle, in three lightnesses. */
export function flatColour(id: number): string {
  const hue = (id * 137.508) % 360;
  const light = 0.4 + 0.15 * (id % 3);
  const chroma = 0.85 * Math.min(light, 1 - light);
  const channel = (offset: number) => {
    const k = (offset + hue / 30) % 12;
    return Math.round(255 * (light - chroma * Math.max(-1, Math.min(k - 3, 9 - k, 1))));
  };
  return `#${[0, 8, 4].map((offset) => channel(offset).toString(16).padStart(2, '0')).join('')}`;
}

/** Adjusts the light of what the masks cover; `coverage` as coverageOf gives it. */
export function maskLight(
  light: Float32Array,
  coverage: Float32Array,
  masks: readonly MaskAdjustment[],
  pixels: number
): void {
  for (const [m, mask] of masks.entries()) {
    if (isNeutralMask(mask)) continue;
    const level = 2 ** mask.exposure_ev;
    const tint = warmthGain(mask.warmth_mired);
    for (let i = 0; i < pixels; i++) {
      const covered = coverage[i * masks.length + m]!;
      if (covered <= 0) continue;
      const o = i * LIGHT;
      const r = light[o]! * (1 + covered * (level * tint[0] - 1));
      const g = light[o + 1]! * (1 + covered * (level * tint[1] - 1));
      const b = light[o + 2]! * (1 + covered * (level * tint[2] - 1));
      const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      const s = 1 + covered * mask.saturation;
      light[o] = Math.max(0, y + (r - y) * s);
      light[o + 1] = Math.max(0, y + (g - y) * s);
      light[o + 2] = Math.max(0, y + (b - y) * s);
    }
  }
}
