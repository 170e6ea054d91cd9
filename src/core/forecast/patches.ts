/** Little squares strewn over a picture, one in each cell of a grid, for a probe: the same for the same picture. */
import type { TileRect } from '../film/film';
import { createRandom } from '../sampling/random';

export const PATCH_PX = 12;
const WANTED = 48;

/** At most 48 and a few, fewer in a picture too small for them; none overlap. */
export function probePatches(width: number, height: number): TileRect[] {
  const random = createRandom(2011);
  const size = Math.min(PATCH_PX, width, height);
  const columns = Math.max(1, Math.min(Math.floor(width / size), Math.round(Math.sqrt((WANTED * width) / height))));
  const rows = Math.max(1, Math.min(Math.floor(height / size), Math.round(WANTED / columns)));
  const patches: TileRect[] = [];
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const place = (i: number, of: number, long: number) => {
        const [from, to] = [Math.floor((i * long) / of), Math.floor(((i + 1) * long) / of)];
        return from + Math.floor(random() * (to - from - size + 1));
      };
      patches.push({
        index: patches.length,
        x: place(c, columns, width),
        y: place(r, rows, height),
        width: size,
        height: size
      });
    }
  }
  return patches;
}
