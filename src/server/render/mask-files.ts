/** The masks of a film as files: flat colours, a list of what they stand for, and the coverage of the largest ones. */
import sharp from 'sharp';
import { type FilmLayers, layerCount, tileFloats, tilesOf } from '../../core/film/film';
import { coverageOf, foremostIds, flatColour, type MaskOf, namesOf } from '../../core/film/masks';
import type { FilmSource } from '../../core/film/store';

interface MaskedFilm {
  film: FilmSource;
  layers: FilmLayers;
  width: number;
  height: number;
}

// Each coverage is a file of the picture's size; what covers less than the rest together is in the flat colours.
const MOST_COVERAGES = 24;

export async function* maskFiles(view: MaskedFilm): AsyncGenerator<{ name: string; bytes: Uint8Array }> {
  for (const kind of ['part', 'material'] as const) {
    const { pixels, areas } = await flatColours(view, kind);
    yield { name: `${kind}s.png`, bytes: await png(pixels, view, 3) };
    const names = namesOf(view.layers, kind);
    const seen = [...areas].sort((a, b) => b[1] - a[1]);
    const share = view.width * view.height;
    const lines = seen.map(
      ([id, area]) => `${flatColour(id)}\t${((100 * area) / share).toFixed(2)} %\t${names[id - 1] ?? ''}`
    );
    yield { name: `${kind}s.txt`, bytes: Buffer.from(`colour\tof the picture\t${kind}\n${lines.join('\n')}\n`) };
    const used = new Set<string>();
    for (const [id] of seen.slice(0, MOST_COVERAGES)) {
      const name = names[id - 1];
      if (name === undefined || used.has(name)) continue;
      used.add(name);
      const file = `${kind}s/${String(used.size).padStart(2, '0')} ${plain(name)}.png`;
      yield { name: file, bytes: await png(await coverage(view, kind, name), view, 1) };
    }
  }
}

/** A name that any file system takes. */
const plain = (name: string) =>
  name
    .replace(/[^\p{L}\p{N} _-]+/gu, '-')
    .slice(0, 80)
    .trim() || 'unnamed';

const png = (pixels: Uint8Array, { width, height }: MaskedFilm, channels: 1 | 3): Promise<Buffer> =>
  sharp(pixels, { raw: { width, height, channels }, limitInputPixels: false }).png({ compressionLevel: 6 }).toBuffer();

async function eachTile(
  { film, layers, width, height }: MaskedFilm,
  take: (data: Float32Array, pixels: number, samples: number, at: (i: number) => number) => void
): Promise<void> {
  for (const tile of tilesOf(width, height)) {
    const state = film.state(tile.index);
    if (!state || state.samples === 0) continue;
    const pixels = tile.width * tile.height;
    const data = await film.read(tile.index, tileFloats(pixels, layerCount(layers)));
    take(data, pixels, state.samples, (i) => (tile.y + Math.floor(i / tile.width)) * width + tile.x + (i % tile.width));
  }
}

/** With the pixels that each id is foremost in. */
async function flatColours(view: MaskedFilm, of: MaskOf): Promise<{ pixels: Uint8Array; areas: Map<number, number> }> {
  const pixels = new Uint8Array(view.width * view.height * 3);
  const areas = new Map<number, number>();
  await eachTile(view, (data, count, _samples, at) => {
    const ids = foremostIds(data, count, view.layers, of);
    for (let i = 0; i < count; i++) {
      const id = ids[i]!;
      if (id === 0) continue;
      areas.set(id, (areas.get(id) ?? 0) + 1);
      const colour = flatColour(id);
      for (let c = 0; c < 3; c++) pixels[at(i) * 3 + c] = Number.parseInt(colour.slice(1 + 2 * c, 3 + 2 * c), 16);
    }
  });
  return { pixels, areas };
}

/** As 8 bits, linear in coverage. */
async function coverage(view: MaskedFilm, of: MaskOf, name: string): Promise<Uint8Array> {
  const pixels = new Uint8Array(view.width * view.height);
  await eachTile(view, (data, count, samples, at) => {
    const covered = coverageOf(data, count, view.layers, samples, [{ of, name }]);
    for (let i = 0; i < count; i++) pixels[at(i)] = Math.round(covered[i]! * 255);
  });
  return pixels;
}
