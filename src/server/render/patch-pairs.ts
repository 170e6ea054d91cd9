/**
 * The same patches of a picture as it is and with one thing less, rendered beside each other: what each takes, what
 * grain it leaves, and how they differ.
 */
import type { Brief } from '../../core/brief/brief';
import { CHANNELS, type TileRect } from '../../core/film/film';
import { changeBetween, lightnessesOf } from '../../core/forecast/change';
import { type Cost, saves } from '../../core/forecast/costs';
import { probePatches } from '../../core/forecast/patches';
import { type Both, both, type Pair, pooled, shareError } from '../../core/forecast/saved-share';
import { squaredGrain } from '../../core/quality/grain';
import { layOut } from '../../kernel/host/settings';
import { config } from '../config';
import { openPool } from './node-threads';
import type { Prepared } from './session';

// A turn: so many samples in so many pieces, short ones, so that some are not broken into by what else runs.
export const PIECE_SAMPLES = 4;
const PIECES = 4;
const TURN_SAMPLES = PIECE_SAMPLES * PIECES;
const MIN_TURNS = 3;
const MAX_TURNS = 8;

export type Patches = ReturnType<typeof openPatches>;

export function openPatches({ packed, settings, white }: Prepared, module: WebAssembly.Module) {
  const patches = probePatches(settings.width, settings.height);
  const pool = openPool(module, layOut(packed, settings, config.threads));
  return {
    patches,
    settings,
    white,
    threads: pool.threads,
    render: (tile: TileRect, first: number, before: Float32Array | null) =>
      pool.render(tile, first, PIECE_SAMPLES, before, white),
    close: () => pool.close()
  };
}

/**
 * What is known of patches so far: of each its sums, null before the first, and the least seconds that a piece took.
 */
interface Seen {
  sums: (Float32Array | null)[];
  seconds: number[];
}

const nothingSeen = ({ patches }: Patches): Seen => ({
  sums: patches.map(() => null),
  seconds: patches.map(() => Number.POSITIVE_INFINITY)
});

/** Further turns until the share is sure, or they are enough. */
export async function comparePatches(sides: Both<Patches>, brief: Brief): Promise<Omit<Cost, 'saving'>> {
  const { patches, settings, white } = sides.whole;
  const pixels = patches.map((p) => p.width * p.height);
  // the first samples run in code that is not yet compiled in full
  await takePiece(
    sides,
    0,
    both(() => nothingSeen(sides.whole))
  );
  const turns: Pair[] = [];
  const films = both(() => pixels.map((n) => new Float32Array(n * CHANNELS)));
  for (;;) {
    const seen = both(() => nothingSeen(sides.whole));
    for (let piece = 0; piece < PIECES; piece++) await takePiece(sides, turns.length * PIECES + piece, seen);
    turns.push(
      both((side) => ({
        seconds: seen[side].seconds.map((s, i) => rounded(s / (PIECE_SAMPLES * pixels[i]!))),
        squaredGrain: seen[side].sums.map((sum, i) =>
          rounded((TURN_SAMPLES * squaredGrain(sum!, pixels[i]!, TURN_SAMPLES, white)) / pixels[i]!)
        )
      }))
    );
    for (const side of ['whole', 'less'] as const)
      for (const [i, film] of films[side].entries()) addTo(film, seen[side].sums[i]!);
    const measured = { pair: pooled(turns), error: shareError(turns, brief.quality) };
    if (turns.length < MIN_TURNS || (turns.length < MAX_TURNS && !saves(measured, brief).settled)) continue;
    const shown = both((side) => lightnessesOf(films[side], patches, turns.length * TURN_SAMPLES, white));
    return { ...measured, ...changeBetween(shown.whole, shown.less, patches, settings) };
  }
}

/**
 * A few samples of all patches: both sides of each one after the other on one thread, so that they meet the same of
 * what else runs.
 */
async function takePiece(sides: Both<Patches>, piece: number, seen: Both<Seen>): Promise<void> {
  const { patches, threads } = sides.whole;
  let next = 0;
  const lane = async () => {
    while (next < patches.length) {
      const i = next++;
      for (const side of (i + piece) % 2 ? (['whole', 'less'] as const) : (['less', 'whole'] as const)) {
        const { seconds, data } = await sides[side].render(patches[i]!, piece * PIECE_SAMPLES, seen[side].sums[i]!);
        seen[side].sums[i] = data;
        seen[side].seconds[i] = Math.min(seen[side].seconds[i]!, seconds);
      }
    }
  };
  await Promise.all(Array.from({ length: threads }, lane));
}

function addTo(film: Float32Array, sums: Float32Array): void {
  for (let i = 0; i < film.length; i++) film[i]! += sums[i]!;
}

// of what is kept of each patch
const rounded = (value: number) => Number(value.toPrecision(5));
