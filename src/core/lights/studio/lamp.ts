/**
 * A studio lamp and what it is to the kernel: one or more even rectangles that shine to their front. Metres, degrees;
 * azimuth 0 stands before the model (+Z) and counts counterclockwise seen from above, elevation from the level of the
 * model's middle.
 */
import { assertNever } from '../../result/assert-never';
import { kelvinToRec709 } from '../../color/kelvin';
import { add, cross, dot, normalize, scale, subtract, type Vec3 } from '../../math/vec3';

export const LAMP_FORMS = ['softbox', 'strip', 'ring', 'window'] as const;
export type LampForm = (typeof LAMP_FORMS)[number];
export const LAMP_ROLES = ['key', 'fill', 'rim', 'accent'] as const;
export type LampRole = (typeof LAMP_ROLES)[number];

export interface StudioLamp {
  name: string;
  role: LampRole;
  form: LampForm;
  on: boolean;
  azimuth_deg: number;
  elevation_deg: number;
  /** From the model's middle to the lamp's. */
  distance_m: number;
  /** Of a ring its diameter; its height then counts for nothing. */
  width_m: number;
  height_m: number;
  /** About its own axis. */
  turn_deg: number;
  kelvin: number;
  /** Hundredths off the black body's colour, positive towards green. */
  tint: number;
  /** All that it gives off. */
  lumen: number;
}

/** Width of a ring's band, of its diameter. */
const RING_BAND = 0.17;
const RING_PIECES = 32;
/** Bars of a window, of its width and height. */
const BAR = 0.05;

/** An even rectangle that shines to its front, `direction`, cd/m2; as a scene's lights are described. */
export interface Rectangle {
  kind: 'rectangle';
  name: string;
  position: Vec3;
  direction: Vec3;
  up: Vec3;
  width: number;
  height: number;
  radiance: Vec3;
}

const radians = (deg: number) => (deg * Math.PI) / 180;

/** Direction from the model's middle to a lamp, before the studio is turned. */
export function lampDirection({ azimuth_deg, elevation_deg }: Pick<StudioLamp, 'azimuth_deg' | 'elevation_deg'>): Vec3 {
  const [a, e] = [radians(azimuth_deg), radians(elevation_deg)];
  return [Math.sin(a) * Math.cos(e), Math.sin(e), Math.cos(a) * Math.cos(e)];
}

/** Azimuth and elevation, degrees, of a direction from the model's middle. */
export function anglesOf(direction: Vec3): { azimuth_deg: number; elevation_deg: number } {
  const [x, y, z] = normalize(direction);
  return {
    azimuth_deg: (Math.atan2(x, z) * 180) / Math.PI,
    elevation_deg: (Math.asin(Math.max(-1, Math.min(1, y))) * 180) / Math.PI
  };
}

/**
 * Where a lamp has to stand for its mirror image to appear at `point` of a surface with this normal, seen from `eye`:
 * on the mirrored line of sight, at the lamp's own distance from `centre` (law of reflection; the far one of two
 * crossings with that sphere). Null when the surface is seen from behind or the line does not reach so far.
 */
export function standForReflection(
  eye: Vec3,
  point: Vec3,
  normal: Vec3,
  centre: Vec3,
  distance_m: number
): { azimuth_deg: number; elevation_deg: number } | null {
  const way = normalize(subtract(point, eye));
  const facing = dot(way, normal);
  if (facing >= 0) return null;
  const mirrored = subtract(way, scale(normal, 2 * facing));
  const from = subtract(point, centre);
  const along = dot(from, mirrored);
  const under = along * along - dot(from, from) + distance_m * distance_m;
  if (under < 0) return null;
  const t = -along + Math.sqrt(under);
  return t > 0 ? anglesOf(add(from, scale(mirrored, t))) : null;
}

/** m2 that shine. */
function litArea({ form, width_m, height_m }: Pick<StudioLamp, 'form' | 'width_m' | 'height_m'>): number {
  if (form === 'ring') return RING_PIECES * ringPiece(width_m).width * RING_BAND * width_m;
  return form === 'window' ? width_m * height_m * (1 - BAR) ** 2 : width_m * height_m;
}

const ringPiece = (diameter: number) => ({
  radius: (diameter * (1 - RING_BAND)) / 2,
  width: diameter * (1 - RING_BAND) * Math.tan(Math.PI / RING_PIECES)
});

/** cd/m2: an even lamp that shines to its front alone gives off pi L A (Lambert). */
export const lampLuminance = (lamp: Pick<StudioLamp, 'form' | 'width_m' | 'height_m' | 'lumen'>): number =>
  lamp.lumen / (Math.PI * litArea(lamp));
export const lumenFor = (luminance: number, lamp: Pick<StudioLamp, 'form' | 'width_m' | 'height_m'>): number =>
  luminance * Math.PI * litArea(lamp);

/** The rectangles that a lamp is made of, about the model's `centre`, in a studio turned by `rotation_deg`. */
export function lampRectangles(lamp: StudioLamp, centre: Vec3, rotation_deg: number, brightness: number): Rectangle[] {
  const toLamp = lampDirection({ azimuth_deg: lamp.azimuth_deg + rotation_deg, elevation_deg: lamp.elevation_deg });
  const at = add(centre, scale(toLamp, lamp.distance_m));
  const front = scale(toLamp, -1);
  const level = normalize(
    cross(
      Math.abs(front[1]) > 0.999
        ? [Math.sin(radians(lamp.azimuth_deg + rotation_deg)), 0, Math.cos(radians(lamp.azimuth_deg + rotation_deg))]
        : [0, 1, 0],
      front
    )
  );
  const upright = cross(front, level);
  const t = radians(lamp.turn_deg);
  const right = add(scale(level, Math.cos(t)), scale(upright, Math.sin(t)));
  const up = cross(front, right);
  const radiance = scale(kelvinToRec709(lamp.kelvin, lamp.tint), lampLuminance(lamp) * brightness);
  const piece = (x: number, y: number, width: number, height: number, upwards: Vec3 = up): Rectangle => ({
    kind: 'rectangle',
    name: lamp.name,
    position: add(at, add(scale(right, x), scale(up, y))),
    direction: front,
    up: upwards,
    width,
    height,
    radiance
  });
  const { width_m: w, height_m: h } = lamp;
  switch (lamp.form) {
    case 'softbox':
    case 'strip':
      return [piece(0, 0, w, h)];
    case 'window': {
      const [pw, ph] = [(w * (1 - BAR)) / 2, (h * (1 - BAR)) / 2];
      return [-1, 1].flatMap((x) => [-1, 1].map((y) => piece((x * (w - pw)) / 2, (y * (h - ph)) / 2, pw, ph)));
    }
    case 'ring': {
      const { radius, width } = ringPiece(w);
      return Array.from({ length: RING_PIECES }, (_, i) => {
        const a = (2 * Math.PI * i) / RING_PIECES;
        return piece(
          radius * Math.cos(a),
          radius * Math.sin(a),
          width,
          RING_BAND * w,
          add(scale(right, Math.cos(a)), scale(up, Math.sin(a)))
        );
      });
    }
    default:
      return assertNever(lamp.form, 'form of a lamp');
  }
}
