/** What of a level ground's sky a flat lamp fills: its corners, with all that lies below the ground cut off. Metres. */
import type { Vec3 } from '../../math/vec3';

/**
 * The part of a convex polygon at or above `height`, corners in their order; empty when there is none (Sutherland and
 * Hodgman 1974).
 */
export function cutBelow(corners: readonly Vec3[], height: number): Vec3[] {
  const out: Vec3[] = [];
  corners.forEach((p, i) => {
    const q = corners[(i + 1) % corners.length]!;
    if (p[1] >= height) out.push(p);
    if (p[1] >= height !== q[1] >= height) {
      const k = (height - p[1]) / (q[1] - p[1]);
      out.push([p[0] + k * (q[0] - p[0]), height, p[2] + k * (q[2] - p[2])]);
    }
  });
  return out;
}
