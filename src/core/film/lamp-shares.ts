/** What each group of lights brings to a picture, from the layers of a small film of it. */
import { luminanceAt } from '../color/spaces';
import { layersAt, type TileRect, tileFloats } from './film';

export interface LampShare {
  group: string;
  /** Of the picture's light, 0 to 1. */
  share: number;
  /** The most that it has of the light of any block of the picture, 0 to 1. */
  most: number;
}

/** With what it costs. */
export interface MeasuredLamp extends LampShare {
  /** Of the render's time; measured for those without effect alone. */
  time: number | null;
}

/** Blocks are so many pixels wide and high: a place, not a grain. */
const BLOCK_PX = 16;

/** Gathers tiles with one layer a group. */
export class LampShares {
  private readonly blocks = new Map<number, Float64Array>();

  constructor(private readonly groups: readonly string[]) {}

  add(tile: TileRect, data: ArrayLike<number>): void {
    const n = this.groups.length;
    const pixels = tile.width * tile.height;
    if (data.length < tileFloats(pixels, n)) throw new RangeError(`LampShares.add: expected ${n} layers`);
    for (let y = 0; y < tile.height; y++) {
      for (let x = 0; x < tile.width; x++) {
        const key = Math.floor((tile.y + y) / BLOCK_PX) * 65_536 + Math.floor((tile.x + x) / BLOCK_PX);
        const block = this.blocks.get(key) ?? new Float64Array(n);
        this.blocks.set(key, block);
        const at = layersAt(y * tile.width + x, pixels, n);
        for (let g = 0; g < n; g++) block[g] = block[g]! + luminanceAt(data, at + g * 3);
      }
    }
  }

  result(): LampShare[] {
    const totals = new Float64Array(this.groups.length);
    const most = new Float64Array(this.groups.length);
    for (const block of this.blocks.values()) {
      const all = block.reduce((sum, v) => sum + v, 0);
      for (let g = 0; g < totals.length; g++) {
        totals[g] = totals[g]! + block[g]!;
        if (all > 0) most[g] = Math.max(most[g]!, block[g]! / all);
      }
    }
    const all = totals.reduce((sum, v) => sum + v, 0);
    return this.groups.map((group, g) => ({ group, share: all > 0 ? totals[g]! / all : 0, most: most[g]! }));
  }
}

// Nobody sees so little, nowhere in the picture.
const MIN_SHARE = 0.003;
const MIN_ANYWHERE = 0.02;
export const isWithoutEffect = ({ share, most }: LampShare): boolean => share < MIN_SHARE && most < MIN_ANYWHERE;
