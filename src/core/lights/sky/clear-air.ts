/**
 * The clear sky round a source of light at some height: its smooth terms are reckoned on a coarse grid (elevations lie
 * closer towards the horizon, azimuths over half a turn from the source) and interpolated, the phase functions
 * evaluated where they are seen.
 */
import { xyzToRec709 } from '../../color/spaces';
import { createAir, hazePhase, moleculePhase, skyRow } from './atmosphere';

interface GridSize {
  rows: number;
  columns: number;
}
const FINE: GridSize = { rows: 48, columns: 33 };
/**
 * In a fifth of the time, for a first look: within 1 % in 95 of 100 directions, 15 % at the worst, at the horizon in
 * twilight.
 */
const COARSE: GridSize = { rows: 20, columns: 13 };
const TERMS = 9;
// The sun lower than this leaves nothing of itself in the air: the end of astronomical twilight is at 18 degrees.
const LOWEST = (-18 * Math.PI) / 180;

export interface ClearAir extends GridSize {
  grid: Float32Array;
}

const known = new Map<string, ClearAir | null>();
const MAX_KNOWN = 8;

/** For a source as strong as the sun; null when none of its light is left. The last few are kept. */
export function clearAir(visibilityKm: number, elevation: number, coarse = false): ClearAir | null {
  if (elevation < LOWEST) return null;
  const key = `${visibilityKm} ${elevation} ${coarse}`;
  const found = known.get(key);
  if (found !== undefined) return found;
  const air = createAir(visibilityKm);
  const { rows, columns } = coarse ? COARSE : FINE;
  const grid = new Float32Array(rows * columns * TERMS);
  const turns = Array.from({ length: columns }, (_, c) => (Math.PI * c) / (columns - 1));
  for (let r = 0; r < rows; r++) {
    for (const [c, terms] of skyRow(air, (Math.PI / 2) * (r / (rows - 1)) ** 2, turns, elevation).entries()) {
      for (const [k, xyz] of [terms.molecules, terms.haze, terms.rest].entries())
        grid.set(xyzToRec709(xyz), (r * columns + c) * TERMS + k * 3);
    }
  }
  if (known.size >= MAX_KNOWN) known.delete(known.keys().next().value!);
  known.set(key, { grid, rows, columns });
  return { grid, rows, columns };
}

const mixed = new Float64Array(TERMS);

/**
 * Radiance (linear Rec. 709, cd/m2) from elevation `h`, at azimuth `turn` from the source (either way), `toSource` the
 * cosine to it, into `out`.
 */
export function airRadiance(
  { grid, rows, columns }: ClearAir,
  h: number,
  turn: number,
  toSource: number,
  out: number[]
): void {
  const row = Math.sqrt(h / (Math.PI / 2)) * (rows - 1);
  const r0 = Math.min(rows - 2, Math.floor(row));
  const fr = row - r0;
  let off = Math.abs(turn) % (2 * Math.PI);
  if (off > Math.PI) off = 2 * Math.PI - off;
  const column = (off / Math.PI) * (columns - 1);
  const c0 = Math.min(columns - 2, Math.floor(column));
  const fc = column - c0;
  const low = (r0 * columns + c0) * TERMS;
  const high = low + columns * TERMS;
  for (let k = 0; k < TERMS; k++) {
    const a = grid[low + k]! * (1 - fc) + grid[low + TERMS + k]! * fc;
    const b = grid[high + k]! * (1 - fc) + grid[high + TERMS + k]! * fc;
    mixed[k] = a * (1 - fr) + b * fr;
  }
  const m = moleculePhase(toSource);
  const z = hazePhase(toSource);
  for (let k = 0; k < 3; k++) out[k] = Math.max(0, mixed[k]! * m + mixed[3 + k]! * z + mixed[6 + k]!);
}
