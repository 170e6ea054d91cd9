/**
 * The bytes that a film's hash is taken of: its size, its sample map, and the sums of every tile in the order of their
 * index; not its layers, which are the same light again.
 */
import { CHANNELS, type TileRect } from './film';
import type { FilmSource } from './store';

export async function* filmBytes(
  film: FilmSource,
  width: number,
  height: number,
  tiles: readonly Pick<TileRect, 'index' | 'width' | 'height'>[]
): AsyncGenerator<Uint8Array> {
  const inOrder = [...tiles].sort((a, b) => a.index - b.index);
  yield new Uint8Array(
    Uint32Array.from([width, height, ...inOrder.map((t) => film.state(t.index)?.samples ?? 0)]).buffer
  );
  for (const tile of inOrder) {
    if (!film.state(tile.index)) continue;
    const floats = tile.width * tile.height * CHANNELS;
    const data = (await film.read(tile.index, floats)).subarray(0, floats);
    yield new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  }
}
