/** One light layer of a film as a film of its own, so that a filter takes its grain as it does a picture's. */
import { CHANNELS, EVEN, type FilmLayers, halves, layerCount, layersAt, ODD, tileFloats, TILE_PX } from './film';
import type { FilmSource, TileState } from './store';

/**
 * The features are the picture's. A layer has no halves, so both have their share of it: its grain cannot be measured, but
 * it can be filtered.
 */
export class LayerFilm implements FilmSource {
  constructor(
    private readonly film: FilmSource,
    private readonly layers: FilmLayers,
    private readonly layer: number
  ) {}

  state(tile: number): TileState | null {
    return this.film.state(tile);
  }

  /** `floats`: of the pixels alone. */
  async read(tile: number, floats: number): Promise<Float32Array> {
    const pixels = Math.min(TILE_PX * TILE_PX, floats / CHANNELS);
    const count = layerCount(this.layers);
    const data = await this.film.read(tile, tileFloats(pixels, count));
    const { samples } = this.film.state(tile)!;
    const [even, odd] = halves(samples);
    const out = data.slice(0, pixels * CHANNELS);
    for (let i = 0; i < pixels; i++) {
      const from = layersAt(i, pixels, count) + this.layer * 3;
      for (let c = 0; c < 3; c++) {
        out[i * CHANNELS + EVEN + c] = (data[from + c]! * even) / samples;
        out[i * CHANNELS + ODD + c] = (data[from + c]! * odd) / samples;
      }
    }
    return out;
  }
}
