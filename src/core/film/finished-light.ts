/** The light of a film as its finish wants it: denoised, its lamps dimmed, its masks adjusted. */
import type { Finish } from '../brief/brief';
import { type DenoisedSource, mixDenoised } from './denoised';
import { dimLight, layerGains, type LayerGain, settleLayers } from './dimmers';
import { CHANNELS, type FilmLayers, layerCount, layersAt, tileFloats, type TileRect } from './film';
import { lightOfTile } from './light';
import { coverageOf, isNeutralMask, type MaskAdjustment, maskLight } from './masks';
import type { FilmSource } from './store';

export interface LightSource {
  /** LIGHT floats a pixel; null where there is none yet. */
  read(tile: TileRect): Promise<Float32Array | null>;
}

/** What a filter made of a film: of its picture, rgb a pixel, and of its light layers, rgb a layer and pixel. */
export interface Cleaned {
  picture: DenoisedSource | null;
  layers: DenoisedSource | null;
}
export const NOT_CLEANED: Cleaned = { picture: null, layers: null };

export class FinishedLight implements LightSource {
  private readonly gains: readonly LayerGain[];
  private readonly amount: number;
  private readonly masks: readonly MaskAdjustment[];

  constructor(
    private readonly film: FilmSource,
    private readonly layers: FilmLayers,
    finish: Pick<Finish, 'denoise' | 'lamps' | 'masks'>,
    private readonly cleaned: Cleaned = NOT_CLEANED
  ) {
    this.gains = layerGains(finish.lamps, layers.groups);
    this.masks = layers.aovs ? finish.masks.filter((mask) => !isNeutralMask(mask)) : [];
    this.amount = cleaned.picture ? finish.denoise : 0;
  }

  async read(tile: TileRect): Promise<Float32Array | null> {
    const state = this.film.state(tile.index);
    if (!state || state.samples === 0) return null;
    const pixels = tile.width * tile.height;
    const { film, layers, amount, gains, cleaned, masks } = this;
    const dimmed = gains.length > 0;
    const whole = dimmed || masks.length > 0;
    const data = await film.read(tile.index, whole ? tileFloats(pixels, layerCount(layers)) : pixels * CHANNELS);
    const denoised = amount > 0 ? await cleaned.picture!.read(tile) : null;
    const shown = denoised ? mixDenoised(data, tile, state.samples, denoised, amount) : data;
    const light = lightOfTile(shown, pixels, state.samples);
    if (dimmed) {
      const own = groupLayers(data, pixels, layers, state.samples);
      const count = layers.groups.length;
      if (denoised) settleLayers(own, (await cleaned.layers?.read(tile)) ?? null, denoised, count, pixels, amount);
      dimLight(light, own, count, pixels, gains);
    }
    if (masks.length > 0) maskLight(light, coverageOf(data, pixels, layers, state.samples, masks), masks, pixels);
    return light;
  }
}

/** Means of a tile's light layers, three floats a group and pixel. */
export function groupLayers(data: Float32Array, pixels: number, layers: FilmLayers, samples: number): Float32Array {
  const floats = layers.groups.length * 3;
  const out = new Float32Array(pixels * floats);
  const k = 1 / samples;
  const count = layerCount(layers);
  for (let i = 0; i < pixels; i++) {
    const from = layersAt(i, pixels, count);
    for (let c = 0; c < floats; c++) out[i * floats + c] = data[from + c]! * k;
  }
  return out;
}
