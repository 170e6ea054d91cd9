/**
 * The sun in a captured image: the brightest spot and what hangs together with it, its direction, its light and colour.
 * It can be cut out, so that a true sun of the same light takes its place: a camera smears and clips the disc, which
 * makes shadows soft and weak. Frame: that of the image before it is turned: +Y up, column u = atan2(z, x) / 2 pi +
 * 1/2, row v = angle from +Y over pi. Method: our own; a clipped disc is found as its whole plateau. Cost: two looks at
 * every texel.
 */
import { luminance, luminanceAt } from '../../color/spaces';
import type { Vec3 } from '../../math/vec3';

export interface FoundSun {
  direction: Vec3;
  /** What it brings to a plane that faces it, beyond its surroundings; units of the image times steradians. */
  irradiance: Vec3;
  /** Radius of a disc of the same solid angle, radians. */
  radius: number;
  texels: Uint32Array;
  /** Mean of the rim, which fills its place when it is cut out. */
  rim: Vec3;
}

interface Panorama {
  width: number;
  height: number;
  pixels: Float32Array;
}

// A sun is this much brighter than the mean of the image; else the brightest spot is a window or a lamp among others.
const MIN_CONTRAST = 40;
// What belongs to it: this share of its peak above the rest, or more.
const EDGE = 0.08;
// No farther from its brightest texel, radians; glare beyond that is sky.
const FARTHEST = 0.12;

/** Null when nothing stands out as a sun does. */
export function findSun({ width, height, pixels }: Panorama): FoundSun | null {
  const at = (i: number) => luminanceAt(pixels, i * 3);
  let peak = 0;
  let brightest = 0;
  let sum = 0;
  let weights = 0;
  for (let y = 0; y < height; y++) {
    const weight = Math.sin((Math.PI * (y + 0.5)) / height);
    for (let x = 0; x < width; x++) {
      const l = at(y * width + x);
      sum += l * weight;
      weights += weight;
      if (l > peak) [peak, brightest] = [l, y * width + x];
    }
  }
  const mean = sum / weights;
  if (!(peak > MIN_CONTRAST * mean)) return null;
  const centre = directionOf(brightest, width, height);
  const least = mean + EDGE * (peak - mean);
  const inside = new Set<number>([brightest]);
  const rim = new Set<number>();
  const queue = [brightest];
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    const [x, y] = [next % width, Math.floor(next / width)];
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const row = y + dy;
        if (row < 0 || row >= height) continue;
        const i = row * width + ((x + dx + width) % width);
        if (inside.has(i)) continue;
        const d = directionOf(i, width, height);
        if (at(i) < least || d[0] * centre[0] + d[1] * centre[1] + d[2] * centre[2] < Math.cos(FARTHEST)) rim.add(i);
        else {
          inside.add(i);
          queue.push(i);
        }
      }
    }
  }
  for (const i of inside) rim.delete(i);
  const around: [number, number, number] = [0, 0, 0];
  for (const i of rim) for (let c = 0; c < 3; c++) around[c]! += pixels[i * 3 + c]! / Math.max(1, rim.size);
  const way = [0, 0, 0];
  const irradiance: [number, number, number] = [0, 0, 0];
  let angle = 0;
  for (const i of inside) {
    const solid = solidAngle(Math.floor(i / width), width, height);
    const d = directionOf(i, width, height);
    const l = at(i) * solid;
    angle += solid;
    for (let c = 0; c < 3; c++) {
      way[c]! += d[c]! * l;
      irradiance[c]! += Math.max(0, pixels[i * 3 + c]! - around[c]!) * solid;
    }
  }
  const size = Math.hypot(way[0]!, way[1]!, way[2]!);
  return {
    direction: [way[0]! / size, way[1]! / size, way[2]! / size],
    irradiance,
    radius: Math.sqrt(angle / Math.PI),
    texels: Uint32Array.from(inside).sort(),
    rim: around
  };
}

/** A copy of the image with its rim's mean where the sun was, and one texel beyond, where its glare bleeds. */
export function cutSun<T extends Panorama>(image: T, sun: FoundSun): T {
  const pixels = image.pixels.slice();
  const { width, height } = image;
  const rimLight = luminance(sun.rim);
  for (const i of sun.texels) {
    const [x, y] = [i % width, Math.floor(i / width)];
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        const row = Math.min(height - 1, Math.max(0, y + dy));
        const p = (row * width + ((x + dx + width) % width)) * 3;
        if (luminanceAt(pixels, p) > rimLight) pixels.set(sun.rim, p);
      }
    }
  }
  return { ...image, pixels };
}

function directionOf(texel: number, width: number, height: number): Vec3 {
  const phi = (((texel % width) + 0.5) / width - 0.5) * 2 * Math.PI;
  const theta = ((Math.floor(texel / width) + 0.5) / height) * Math.PI;
  return [Math.sin(theta) * Math.cos(phi), Math.cos(theta), Math.sin(theta) * Math.sin(phi)];
}

/** Of a texel of a row, exact for its band. */
const solidAngle = (row: number, width: number, height: number) =>
  (Math.cos((Math.PI * row) / height) - Math.cos((Math.PI * (row + 1)) / height)) * ((2 * Math.PI) / width);
