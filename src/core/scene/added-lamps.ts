/**
 * Lamps that a brief adds to a model's own: what they are to the kernel. Metres, lumen, kelvin; a lamp's group is that
 * of its name, as for the model's lamps.
 */
import { assertNever } from '../result/assert-never';
import { kelvinToRec709 } from '../color/kelvin';
import { type PhotometricWeb, webFlux } from '../lights/web/web';
import { add, cross, normalize, scale, type Vec3 } from '../math/vec3';
import type { SceneLight } from './scene';

export const ADDED_FORMS = ['point', 'spot', 'panel', 'strip', 'window'] as const;
/** `panel`, `strip` and `window` are even rectangles that shine to their front; a window's panel fills an opening. */
export type AddedForm = (typeof ADDED_FORMS)[number];

export interface AddedLamp {
  name: string;
  form: AddedForm;
  position_m: [number, number, number];
  /** Where it shines to; of a point only its photometric file has one. */
  direction: [number, number, number];
  /** About that. */
  turn_deg: number;
  width_m: number;
  height_m: number;
  /** Of a spot: full angle within which it has half its intensity or more. */
  beam_deg: number;
  lumen: number;
  kelvin: number;
  tint: number;
  /**
   * Content hash of the photometric file that says where its light goes, for points and spots; path for the command.
   */
  photometry: string | null;
}

/** Photometric files by their hash. */
export type Webs = ReadonlyMap<string, PhotometricWeb>;

const radians = (deg: number) => (deg * Math.PI) / 180;

/** Right and up of something that looks along `front`: level and upright, then turned about it. */
export function frameOf(front: Vec3, turnDeg: number): { right: Vec3; up: Vec3 } {
  const level = normalize(cross(Math.abs(front[1]) > 0.999 ? [0, 0, front[1] > 0 ? 1 : -1] : [0, 1, 0], front));
  const upright = cross(front, level);
  const t = radians(turnDeg);
  const right = add(scale(level, Math.cos(t)), scale(upright, Math.sin(t)));
  return { right, up: cross(front, right) };
}

/**
 * Half angles of a spot's cone, radians: full light within the first, none beyond the second, half at half the beam.
 */
export function spotCone(beamDeg: number): { inner: number; outer: number } {
  const half = radians(Math.min(178, beamDeg) / 2);
  const inner = half * 0.75;
  // light falls with the square of the way from the outer cosine to the inner one; at half the beam it is to be a half
  const k = Math.SQRT1_2;
  const outer = Math.acos(Math.max(-1, (Math.cos(half) - k * Math.cos(inner)) / (1 - k)));
  return { inner, outer: Math.min(outer, Math.PI * 0.999) };
}

const STEPS = 512;
/** Intensity in the middle of a spot's beam, cd: its flux over what the cone's falloff leaves of the sphere. */
export function spotIntensity(lumen: number, beamDeg: number): number {
  const { inner, outer } = spotCone(beamDeg);
  const [ci, co] = [Math.cos(inner), Math.cos(outer)];
  let sum = 0;
  for (let i = 0; i < STEPS; i++) {
    const c = co + ((1 - co) * (i + 0.5)) / STEPS;
    sum += Math.min(1, Math.max(0, (c - co) / (ci - co))) ** 2;
  }
  return lumen / ((2 * Math.PI * sum * (1 - co)) / STEPS);
}

/** Throws a RangeError when its photometric file is not among the webs. */
export function lightOf(lamp: AddedLamp, webs: Webs): SceneLight {
  const { name, lumen, beam_deg } = lamp;
  const position: Vec3 = lamp.position_m;
  const color = kelvinToRec709(lamp.kelvin, lamp.tint);
  const direction = normalize(lamp.direction);
  const { right, up } = frameOf(direction, lamp.turn_deg);
  switch (lamp.form) {
    case 'point':
    case 'spot': {
      if (lamp.photometry !== null) {
        const web = webOf(lamp.photometry, webs);
        const tint = scale(color, lumen / Math.max(webFlux(web), 1e-9));
        return { kind: 'web', name, position, direction, plane: right, tint, web };
      }
      if (lamp.form === 'point')
        return { kind: 'point', name, position, intensity: scale(color, lumen / (4 * Math.PI)) };
      const { inner, outer } = spotCone(beam_deg);
      const intensity = scale(color, spotIntensity(lumen, beam_deg));
      return { kind: 'spot', name, position, direction, intensity, innerAngle: inner, outerAngle: outer };
    }
    case 'panel':
    case 'strip':
    case 'window': {
      const radiance = scale(color, lumen / (Math.PI * lamp.width_m * lamp.height_m));
      const [width, height] = [lamp.width_m, lamp.height_m];
      return { kind: 'rectangle', name, position, direction, up, width, height, radiance };
    }
    default:
      return assertNever(lamp.form, 'form of a lamp');
  }
}

export function webOf(key: string, webs: Webs): PhotometricWeb {
  const web = webs.get(key);
  if (!web) throw new RangeError(`the photometric file ${key.slice(0, 12)} is not here; attach it to the lamp again`);
  return web;
}
