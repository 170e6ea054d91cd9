/**
 * Photometric webs: luminous intensity over planes C and angles gamma (CIE 121), brought to the even grid that the
 * kernel reads, and their total flux. Linear between the angles that were measured, 0 beyond them.
 */
/** Luminous intensity by direction on an even grid. */
export interface PhotometricWeb {
  /** Planes C over a full turn, counterclockwise against the axis; 1 when all are alike. */
  planes: number;
  /** Angles gamma over 0 to 180 degrees, both ends included. */
  angles: number;
  /** cd, plane by plane. */
  candela: Float32Array;
}

/**
 * As measured: planes and angles in degrees, ascending; `candela[c][g]`. Planes cover a full turn, or one stands for
 * all.
 */
export interface MeasuredWeb {
  planes: number[];
  angles: number[];
  candela: number[][];
}

const FINEST_ANGLE_DEG = 0.25;
const FINEST_PLANE_DEG = 1;

export function resampleWeb(measured: MeasuredWeb): PhotometricWeb {
  const angles = Math.round(180 / stepOf(measured.angles, FINEST_ANGLE_DEG, 5)) + 1;
  const planes =
    measured.planes.length === 1
      ? 1
      : Math.round(360 / stepOf([...measured.planes, measured.planes[0]! + 360], FINEST_PLANE_DEG, 30));
  const candela = new Float32Array(planes * angles);
  for (let c = 0; c < planes; c++) {
    const [low, high, between] = planes === 1 ? [0, 0, 0] : placeAround(measured.planes, (360 * c) / planes);
    for (let g = 0; g < angles; g++) {
      const gamma = (180 * g) / (angles - 1);
      candela[c * angles + g] =
        along(measured.angles, measured.candela[low]!, gamma) * (1 - between) +
        along(measured.angles, measured.candela[high]!, gamma) * between;
    }
  }
  return { planes, angles, candela };
}

/**
 * lm; the intensity integrated over the sphere, exact for what the grid says (linear in gamma, each plane for its share
 * of the turn).
 */
export function webFlux({ planes, angles, candela }: PhotometricWeb): number {
  const step = Math.PI / (angles - 1);
  let sum = 0;
  for (let c = 0; c < planes; c++) {
    for (let g = 0; g + 1 < angles; g++) {
      const a = g * step;
      const b = a + step;
      const [p, q] = [candela[c * angles + g]!, candela[c * angles + g + 1]!];
      // integral of a linear function times the sine
      const slope = (q - p) / step;
      sum += p * Math.cos(a) - q * Math.cos(b) + slope * (Math.sin(b) - Math.sin(a));
    }
  }
  return (sum * 2 * Math.PI) / planes;
}

/**
 * Intensities as lighting people draw them, cd: in the plane C0 to C180 and in C90 to C270, at gamma from -180 (the far
 * half) to 180 in even steps.
 */
export interface PolarCurve {
  along: number[];
  across: number[];
}

const CURVE_STEPS = 72; // of half a turn

export function polarCurve({ planes, angles, candela }: PhotometricWeb): PolarCurve {
  const at = (plane: number, gamma: number) => {
    const c = Math.round((plane / 360) * planes) % planes;
    const at = (gamma / 180) * (angles - 1);
    const low = Math.min(angles - 2, Math.floor(at));
    return candela[c * angles + low]! * (low + 1 - at) + candela[c * angles + low + 1]! * (at - low);
  };
  const half = (plane: number) =>
    Array.from({ length: CURVE_STEPS + 1 }, (_, i) => Math.round(at(plane, (180 * i) / CURVE_STEPS) * 10) / 10);
  const whole = (front: number, back: number) => [...half(back).slice(1).reverse(), ...half(front)];
  return { along: whole(0, 180), across: whole(90, 270) };
}

/** Adds the planes mirrored at `axis`, those up to `end` (a full turn when not given). */
export function mirrorWeb(web: MeasuredWeb, axis: number, end = 360): MeasuredWeb {
  const known = new Map(web.planes.map((c, i) => [c, web.candela[i]!]));
  web.planes.forEach((c, i) => {
    const other = (2 * axis - c + 720) % 360;
    if (!known.has(other) && other <= end) known.set(other, web.candela[i]!);
  });
  const planes = [...known.keys()].filter((c) => c < 360).sort((a, b) => a - b);
  return { ...web, planes, candela: planes.map((c) => known.get(c)!) };
}

function stepOf(values: readonly number[], finest: number, coarsest: number): number {
  let gap = coarsest;
  for (let i = 1; i < values.length; i++)
    if (values[i]! > values[i - 1]!) gap = Math.min(gap, values[i]! - values[i - 1]!);
  return Math.max(gap, finest);
}

function along(angles: readonly number[], values: readonly number[], gamma: number): number {
  if (gamma < angles[0]! - 1e-9 || gamma > angles.at(-1)! + 1e-9) return 0;
  let i = 0;
  while (i < angles.length - 2 && angles[i + 1]! < gamma) i++;
  if (angles.length === 1) return values[0]!;
  const t = Math.min(1, Math.max(0, (gamma - angles[i]!) / (angles[i + 1]! - angles[i]!)));
  return values[i]! * (1 - t) + values[i + 1]! * t;
}

/** The planes before and after a turn, and how far it lies between them. */
function placeAround(planes: readonly number[], turn: number): [number, number, number] {
  for (let i = 0; i < planes.length; i++) {
    const from = planes[i]!;
    const to = i + 1 < planes.length ? planes[i + 1]! : planes[0]! + 360;
    const at = turn < planes[0]! ? turn + 360 : turn;
    if (at >= from && at <= to) return [i, (i + 1) % planes.length, to > from ? (at - from) / (to - from) : 0];
  }
  return [0, 0, 0];
}
