/**
 * Clear air: how sunlight is dimmed, reddened and scattered on its way down. A spherical atmosphere of molecules, haze
 * and ozone, spectral in the bands of color/spectrum, single scattering plus all higher orders as one isotropic source.
 * Frame: heights in km above ground, +Y up, radiance per nm in W/(m2 sr nm) relative to a sun scaled to
 * SUN_ILLUMINANCE_LX. Sources: Nishita et al. 1993 (the integrals); Hillaire 2020, A Scalable and Production Ready Sky
 * and Atmosphere Rendering Technique, section 5.5 (higher orders); Froehlich and Shaw 1980 (molecular optical depth);
 * Koschmieder 1924 (visibility); Cornette and Shanks 1992 (phase function of haze). Ozone: a Gaussian for the Chappuis
 * band, peak 0.045 at 602 nm for 350 Dobson units, from memory. Limits: no clouds, no polarisation, ground of one grey,
 * sun below -6 degrees is night.
 */
import { planck, SAMPLES, spectrumToXyz, WAVELENGTHS_NM } from '../../color/spectrum';

const GROUND_KM = 6360;
const TOP_KM = 6440;
const MOLECULE_HEIGHT_KM = 8;
const HAZE_HEIGHT_KM = 1.2;
const HAZE_ALBEDO = 0.93;
const HAZE_FORWARD = 0.76;
const GROUND_ALBEDO = 0.2;
const SUN_KELVIN = 5900;
/** Illuminance of sunlight outside the atmosphere at mean distance. Source: IES Lighting Handbook. */
export const SUN_ILLUMINANCE_LX = 128_000;
/** Angular radius of the sun, mean. Source: IAU nominal solar radius over the astronomical unit. */
export const SUN_RADIUS_RAD = 6.957e8 / 1.495978707e11;

export interface Air {
  /** Per band, at ground level, 1/km. */
  molecules: Float64Array;
  haze: Float64Array;
  ozone: Float64Array;
  sun: Float64Array;
  /** Higher orders: HEIGHTS x COSINES x SAMPLES. */
  multiple: Float64Array;
}

const HEIGHTS = 8;
const COSINES = 24;

const airs = new Map<number, Air>();
const MAX_AIRS = 8;

/**
 * `visibilityKm`: the farthest a dark hill is still seen, 5 (thick haze) to 150 (alpine). The last few are kept: they
 * take 0.1 s each.
 */
export function createAir(visibilityKm: number): Air {
  const known = airs.get(visibilityKm);
  if (known) return known;
  const molecules = new Float64Array(SAMPLES);
  const haze = new Float64Array(SAMPLES);
  const ozone = new Float64Array(SAMPLES);
  const sun = new Float64Array(SAMPLES);
  const molecular550 = depthOfMolecules(0.55) / MOLECULE_HEIGHT_KM;
  const haze550 = Math.max(0.0005, 3.912 / visibilityKm - molecular550);
  for (let i = 0; i < SAMPLES; i++) {
    const micron = WAVELENGTHS_NM[i]! / 1000;
    molecules[i] = depthOfMolecules(micron) / MOLECULE_HEIGHT_KM;
    haze[i] = haze550 * (micron / 0.55) ** -1.3;
    ozone[i] = (0.045 * Math.exp(-0.5 * ((WAVELENGTHS_NM[i]! - 602) / 52) ** 2)) / 15;
    sun[i] = planck(WAVELENGTHS_NM[i]!, SUN_KELVIN);
  }
  const illuminance = spectrumToXyz(sun)[1];
  for (let i = 0; i < SAMPLES; i++) sun[i] = (sun[i]! * SUN_ILLUMINANCE_LX) / illuminance;
  const air: Air = { molecules, haze, ozone, sun, multiple: new Float64Array(HEIGHTS * COSINES * SAMPLES) };
  fillMultiple(air);
  if (airs.size >= MAX_AIRS) airs.delete(airs.keys().next().value!);
  airs.set(visibilityKm, air);
  return air;
}

/** Froehlich and Shaw 1980, as fitted for sea level. */
function depthOfMolecules(micron: number): number {
  return 0.00838 * micron ** -(3.916 + 0.074 * micron + 0.05 / micron);
}

const ozoneDensity = (km: number) => Math.max(0, 1 - Math.abs(km - 25) / 15);

/**
 * Distance in km to the top of the air, or to the ground when it comes first (negative cosine); `r` from Earth's
 * centre.
 */
function reach(r: number, cosine: number): { km: number; ground: boolean } {
  const b = r * cosine;
  const toGround = b * b - r * r + GROUND_KM * GROUND_KM;
  if (cosine < 0 && toGround > 0 && r > GROUND_KM) return { km: -b - Math.sqrt(toGround), ground: true };
  return { km: -b + Math.sqrt(b * b - r * r + TOP_KM * TOP_KM), ground: false };
}

/**
 * Columns of molecules, haze and ozone (km at ground density) from r along a direction to the top; null behind the
 * ground.
 */
function columns(r: number, cosine: number, steps: number): [number, number, number] | null {
  if (cosine < 0 && r * Math.sqrt(1 - cosine * cosine) < GROUND_KM && r >= GROUND_KM) {
    const closest = r * Math.sqrt(1 - cosine * cosine);
    if (closest < GROUND_KM - 0.5) return null;
  }
  const b = r * cosine;
  const total = -b + Math.sqrt(Math.max(0, b * b - r * r + TOP_KM * TOP_KM));
  let m = 0;
  let h = 0;
  let o = 0;
  let before = 0;
  for (let i = 0; i < steps; i++) {
    const after = total * ((i + 1) / steps) ** 2;
    const at = (before + after) / 2;
    const km = Math.max(0, Math.sqrt(r * r + at * at + 2 * r * at * cosine) - GROUND_KM);
    const d = after - before;
    m += Math.exp(-km / MOLECULE_HEIGHT_KM) * d;
    h += Math.exp(-km / HAZE_HEIGHT_KM) * d;
    o += ozoneDensity(km) * d;
    before = after;
  }
  return [m, h, o];
}

/** Share of sunlight that reaches a height, per band; zero when the sun is behind the ground. */
export function sunTransmittance(air: Air, heightKm: number, sunCosine: number, out: Float64Array): Float64Array {
  const c = columns(GROUND_KM + heightKm, sunCosine, 32);
  if (!c) return out.fill(0);
  for (let i = 0; i < SAMPLES; i++)
    out[i] = Math.exp(-(air.molecules[i]! * c[0] + air.haze[i]! * c[1] + air.ozone[i]! * c[2]));
  return out;
}

function fillMultiple(air: Air): void {
  const directions = 48;
  const transmitted = new Float64Array(SAMPLES);
  for (let hi = 0; hi < HEIGHTS; hi++) {
    const height = 0.05 + 50 * (hi / (HEIGHTS - 1)) ** 2;
    const second = new Float64Array(COSINES * SAMPLES);
    const feedback = new Float64Array(SAMPLES);
    for (let k = 0; k < directions; k++) {
      // a spiral over the sphere; the way through the air is the same for every height of the sun
      const cosine = 1 - (2 * (k + 0.5)) / directions;
      const turn = Math.PI * (1 + Math.sqrt(5)) * k;
      const scattered = new Float64Array(SAMPLES);
      march(
        air,
        GROUND_KM + height,
        cosine,
        14,
        (r, d, through, at) => {
          const km = Math.max(0, r - GROUND_KM);
          const up = (GROUND_KM + height + at * cosine) / r; // cosine of the turn of "up" along the ray, close to 1
          const m = Math.exp(-km / MOLECULE_HEIGHT_KM) * d;
          const h = Math.exp(-km / HAZE_HEIGHT_KM) * d;
          for (let i = 0; i < SAMPLES; i++) {
            scattered[i] = (air.molecules[i]! * m + HAZE_ALBEDO * air.haze[i]! * h) * through[i]!;
            feedback[i] = feedback[i]! + scattered[i]! / directions;
          }
          for (let ci = 0; ci < COSINES; ci++) {
            const sunCosine = sunCosineOf(ci);
            const toSun =
              cosine * sunCosine +
              Math.sqrt(1 - cosine * cosine) * Math.sqrt(Math.max(0, 1 - sunCosine * sunCosine)) * Math.cos(turn);
            sunTransmittanceFast(
              air,
              km,
              clampCosine(sunCosine * up + (at / r) * (toSun - cosine * sunCosine)),
              transmitted
            );
            for (let i = 0; i < SAMPLES; i++)
              second[ci * SAMPLES + i] =
                second[ci * SAMPLES + i]! + (scattered[i]! * transmitted[i]!) / (4 * Math.PI) / directions;
          }
        },
        (through) => {
          for (let ci = 0; ci < COSINES; ci++) {
            const sunCosine = sunCosineOf(ci);
            sunTransmittanceFast(air, 0, sunCosine, transmitted);
            for (let i = 0; i < SAMPLES; i++)
              second[ci * SAMPLES + i] =
                second[ci * SAMPLES + i]! +
                (through[i]! * transmitted[i]! * Math.max(0, sunCosine) * GROUND_ALBEDO) / Math.PI / directions;
          }
        }
      );
    }
    for (let ci = 0; ci < COSINES; ci++)
      for (let i = 0; i < SAMPLES; i++)
        air.multiple[(hi * COSINES + ci) * SAMPLES + i] = second[ci * SAMPLES + i]! / (1 - feedback[i]!);
  }
}

const sunCosineOf = (ci: number) => -0.3 + 1.3 * (ci / (COSINES - 1));
const clampCosine = (c: number) => Math.min(1, Math.max(-1, c));

/** The transmittance again with few steps, for the inner loops; the error is below 1 % above 2 degrees. */
function sunTransmittanceFast(air: Air, km: number, cosine: number, out: Float64Array): void {
  const c = columns(GROUND_KM + km, cosine, 14);
  if (!c) {
    out.fill(0);
    return;
  }
  for (let i = 0; i < SAMPLES; i++)
    out[i] = Math.exp(-(air.molecules[i]! * c[0] + air.haze[i]! * c[1] + air.ozone[i]! * c[2]));
}

/**
 * Walks a ray through the air, calling `visit` with the place, the step in km, what the way so far lets through, and
 * the km gone.
 */
function march(
  air: Air,
  r0: number,
  cosine: number,
  steps: number,
  visit: (r: number, d: number, through: Float64Array, at: number) => void,
  atGround: (through: Float64Array) => void
): void {
  const { km: total, ground } = reach(r0, cosine);
  const through = new Float64Array(SAMPLES).fill(1);
  const half = new Float64Array(SAMPLES);
  let before = 0;
  for (let s = 0; s < steps; s++) {
    const after = total * ((s + 1) / steps) ** 1.7;
    const at = (before + after) / 2;
    const d = after - before;
    const r = Math.sqrt(r0 * r0 + at * at + 2 * r0 * at * cosine);
    const km = Math.max(0, r - GROUND_KM);
    const m = Math.exp(-km / MOLECULE_HEIGHT_KM) * d;
    const h = Math.exp(-km / HAZE_HEIGHT_KM) * d;
    const o = ozoneDensity(km) * d;
    for (let i = 0; i < SAMPLES; i++) {
      half[i] = Math.exp(-0.5 * (air.molecules[i]! * m + air.haze[i]! * h + air.ozone[i]! * o));
      through[i] = through[i]! * half[i]!;
    }
    visit(r, d, through, at);
    for (let i = 0; i < SAMPLES; i++) through[i] = through[i]! * half[i]!;
    before = after;
  }
  if (ground) atGround(through);
}

/** Higher orders at a height and with the sun at a cosine, all bands. */
function multipleAt(air: Air, km: number, sunCosine: number, out: Float64Array): void {
  const h = Math.min(HEIGHTS - 1.001, Math.sqrt(Math.max(0, (km - 0.05) / 50)) * (HEIGHTS - 1));
  const c = Math.min(COSINES - 1.001, Math.max(0, ((sunCosine + 0.3) / 1.3) * (COSINES - 1)));
  const h0 = Math.floor(h);
  const c0 = Math.floor(c);
  const fh = h - h0;
  const fc = c - c0;
  const low = (h0 * COSINES + c0) * SAMPLES;
  const high = low + COSINES * SAMPLES;
  const { multiple } = air;
  for (let i = 0; i < SAMPLES; i++)
    out[i] =
      (multiple[low + i]! * (1 - fc) + multiple[low + SAMPLES + i]! * fc) * (1 - fh) +
      (multiple[high + i]! * (1 - fc) + multiple[high + SAMPLES + i]! * fc) * fh;
}

export interface SkyTerms {
  /**
   * To be multiplied by the molecules' and the haze's phase function, and as it is; XYZ, cd/m2 (times 4 pi for the
   * first two).
   */
  molecules: [number, number, number];
  haze: [number, number, number];
  rest: [number, number, number];
}

/**
 * What comes from a row of the sky (one elevation, azimuths from the sun, radians), split by phase function so that the
 * smooth terms can be interpolated and the sharp aureole evaluated where it is seen. The way through the air is walked
 * once for the row.
 */
export function skyRow(air: Air, elevation: number, fromSun: readonly number[], sunElevation: number): SkyTerms[] {
  const cosine = Math.sin(elevation);
  const sunCosine = Math.sin(sunElevation);
  const spectra = fromSun.map((turn) => ({
    toSun: cosine * sunCosine + Math.cos(elevation) * Math.cos(sunElevation) * Math.cos(turn),
    single: new Float64Array(SAMPLES),
    haze: new Float64Array(SAMPLES),
    rest: new Float64Array(SAMPLES)
  }));
  const transmitted = new Float64Array(SAMPLES);
  const multiple = new Float64Array(SAMPLES);
  march(
    air,
    GROUND_KM + 0.02,
    Math.max(cosine, 1e-4),
    36,
    (r, d, through, at) => {
      const km = Math.max(0, r - GROUND_KM);
      const m = Math.exp(-km / MOLECULE_HEIGHT_KM) * d;
      const h = Math.exp(-km / HAZE_HEIGHT_KM) * d;
      for (const { toSun, single, haze, rest } of spectra) {
        // the sun's height above the horizon of a place far along the ray
        const local = clampCosine(((GROUND_KM + 0.02) * sunCosine + at * toSun) / r);
        sunTransmittanceFast(air, km, local, transmitted);
        multipleAt(air, km, local, multiple);
        for (let i = 0; i < SAMPLES; i++) {
          const sigmaM = air.molecules[i]! * m;
          const sigmaH = HAZE_ALBEDO * air.haze[i]! * h;
          const lit = through[i]! * air.sun[i]!;
          single[i] = single[i]! + sigmaM * lit * transmitted[i]!;
          haze[i] = haze[i]! + sigmaH * lit * transmitted[i]!;
          rest[i] = rest[i]! + (sigmaM + sigmaH) * lit * multiple[i]!;
        }
      }
    },
    () => {}
  );
  return spectra.map(({ single, haze, rest }) => ({
    molecules: [...spectrumToXyz(single)],
    haze: [...spectrumToXyz(haze)],
    rest: [...spectrumToXyz(rest)]
  }));
}

/** Phase functions per steradian, of the cosine between sunlight's way and the way to the eye. */
export const moleculePhase = (c: number): number => (3 / (16 * Math.PI)) * (1 + c * c);
export function hazePhase(c: number): number {
  const g = HAZE_FORWARD;
  return (((3 / (8 * Math.PI)) * (1 - g * g)) / (2 + g * g)) * ((1 + c * c) / (1 + g * g - 2 * g * c) ** 1.5);
}
