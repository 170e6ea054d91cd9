/**
 * A little piece of a picture as it would be, pixel for pixel, to judge a size and a quality by. It is taken where the
 * probe found more grain than in nine tenths of the picture: there a quality is worth its time, or is not. The same
 * place for all that are compared.
 */
import type { Brief } from '../brief/brief';
import { resolveSize, scaleSize, squareAbout } from '../output/size';
import type { Probe } from './forecast';
import { probePatches } from './patches';

export const CROP_PX = 80;
const GRAINIER_THAN = 0.9;

/** The middle of the piece, in shares of the picture. `aspect`: its width over its height. */
export function tellingPlace({ at: [, large] }: Probe, aspect: number): { x: number; y: number } {
  const [width, height] =
    aspect >= 1
      ? [large.longSide_px, Math.max(1, Math.round(large.longSide_px / aspect))]
      : [Math.max(1, Math.round(large.longSide_px * aspect)), large.longSide_px];
  const patches = probePatches(width, height).slice(0, large.squaredGrain.length);
  const order = patches.map((_, i) => i).sort((a, b) => large.squaredGrain[a]! - large.squaredGrain[b]!);
  const patch = patches[order[Math.min(order.length - 1, Math.floor(order.length * GRAINIER_THAN))]!]!;
  return { x: (patch.x + patch.width / 2) / width, y: (patch.y + patch.height / 2) / height };
}

/** The brief of the piece alone. */
export function cropBrief(brief: Brief, place: { x: number; y: number }): Brief {
  return {
    ...brief,
    bleed_mm: 0,
    patch: squareAbout(place, CROP_PX, scaleSize(resolveSize(brief.size), brief.quality.scale))
  };
}
