/**
 * The sky as a latitude-longitude image in cd/m2 (linear Rec. 709), the disc of sun or moon that goes with it, and the
 * stars. Clear air lit by the sun, and by the moon when it is night, blended towards an overcast sky by the share of
 * cloud; heaped clouds before it; below the horizon a grey ground lit by all of them.
 * Sources: CIE S 011 type 16 (the traditional overcast sky, L(h) = Lz (1 + 2 sin h) / 3, Moon and Spencer 1942);
 * Krochmann 1963 (overcast horizontal illuminance 300 + 21,000 sin h lx).
 */
import { luminance, xyzToRec709 } from '../../color/spaces';
import { SAMPLES, spectrumToXyz } from '../../color/spectrum';
import type { Radians } from '../../units/units';
import { dot, normalize, scale, type Vec3 } from '../../math/vec3';
import { MOON_RADIUS_RAD, moonIlluminance } from '../moon/position';
import { SUN_LIMB } from '../sun/limb';
import type { Disc } from '../surroundings-light';
import { createAir, SUN_ILLUMINANCE_LX, SUN_RADIUS_RAD, sunTransmittance } from './atmosphere';
import { airRadiance, type ClearAir, clearAir } from './clear-air';
import { mirrored, mirrorWay } from './sky-lights';
import { type CloudImage, cloudImage } from './clouds';
import type { Cumulus } from './cumulus';
import { DARK_ZENITH, NIGHT_COLOR, starShare, vanRhijn } from './night';

export interface SkyImage {
  width: number;
  height: number;
  /** rgb, row 0 looks up; column u looks along angle (u - 1/2) 2 pi from +X towards +Z. */
  pixels: Float32Array;
  /** The sun, or when it is down the moon; null when neither is up, or behind full cloud. */
  disc: (Disc & { illuminance_lx: number }) | null;
  /**
   * Of the stars, what the light of the sky and the veil leave; and where clouds hide them, one byte a texel of the
   * image.
   */
  stars: { share: number; clear: Uint8Array | null };
}

export interface SkyMoon {
  direction: Vec3;
  phase: number;
}

export interface SkyOptions {
  /** World direction towards the sun as it is seen. */
  direction: Vec3;
  /** Its elevation without air, which decides how light the sky is; that of its direction when not stated. */
  elevation?: Radians;
  /** As SkyPlace has it; directions are mirrored already. */
  mirror_deg?: number | null;
  visibility_km: number;
  /** 0 clear to 1 overcast. */
  cloud: number;
  cumulus?: Cumulus | null;
  moon?: SkyMoon | null;
  /**
   * Factors on what sun and moon give, against what the sky gives: of the disc's light on ground and clouds, and of the
   * disc itself.
   */
  sunGain?: Vec3;
  skyGain?: Vec3;
  moonGain?: Vec3;
  width?: number;
  /** Quick, for a first look. */
  coarse?: boolean;
}

const GROUND_REFLECTANCE = 0.2;
const PLAIN_WIDTH = { fine: 512, coarse: 256 };
// Clouds have edges to show.
const CLOUD_WIDTH = { fine: 1536, coarse: 512 };
const ONES: Vec3 = [1, 1, 1];
// Less than this of the disc is as good as none.
const MIN_DISC = 0.002;

/** CIE traditional overcast sky: luminance towards an elevation relative to the zenith. */
export const overcastRelative = (sinElevation: number): number => (1 + 2 * sinElevation) / 3;
/** Zenith luminance of an overcast sky with the sun at an elevation, cd/m2. */
export function overcastZenith(sunElevation: number): number {
  const illuminance = 300 + 21_000 * Math.max(0, Math.sin(sunElevation));
  return illuminance / ((7 * Math.PI) / 9);
}
// In twilight the overcast sky goes down with the clear one; by night it has what moon and glow give.
const overcastNow = (sunElevation: number): number =>
  overcastZenith(sunElevation) * 10 ** (Math.min(0, (sunElevation * 180) / Math.PI) * 0.42);

/** Direct sunlight on a surface facing it, lx per channel, at a height in the air. */
export function directSun(visibilityKm: number, elevation: number, heightKm = EYE_KM): Vec3 {
  const air = createAir(visibilityKm);
  const through = sunTransmittance(air, heightKm, Math.sin(elevation), new Float64Array(SAMPLES));
  const spectrum = air.sun.map((s, i) => s * through[i]!);
  return xyzToRec709(spectrumToXyz(spectrum)).map((c) => Math.max(0, c)) as unknown as Vec3;
}

const EYE_KM = 0.02;
// Of the ground under a covered layer, as much lies in shadow.
const SHADED = 0.7;
// Of the haze on a level way, as much lies on one up to the clouds.
const HAZE_BELOW = 0.45;
const capOf = (radius: number) => 2 * Math.sin(radius / 2) ** 2;
const times = (a: Vec3, b: Vec3): Vec3 => [a[0] * b[0], a[1] * b[1], a[2] * b[2]];
const elevationOf = ([, y]: Vec3) => Math.asin(Math.max(-1, Math.min(1, y)));

/** A light in the sky: what it does to the air, what it brings to the ground directly, and from which direction. */
interface Source {
  direction: Vec3;
  air: ClearAir | null;
  /** Of the air's light, per channel. */
  airGain: Vec3;
  /** Directly, on a plane facing it, lx, where nothing hides it: on the ground and at the clouds. */
  direct: Vec3;
  atClouds: Vec3;
}

export function makeSky(options: SkyOptions): SkyImage {
  const {
    cloud,
    visibility_km,
    cumulus = null,
    moon = null,
    sunGain = ONES,
    skyGain = ONES,
    moonGain = ONES
  } = options;
  const heaped = cumulus !== null && cumulus.cover > 0;
  const fineness = options.coarse ? 'coarse' : 'fine';
  const width = options.width ?? (heaped ? CLOUD_WIDTH : PLAIN_WIDTH)[fineness];
  const sunElevation = options.elevation ?? elevationOf(options.direction);
  const sunUp = elevationOf(options.direction) > -SUN_RADIUS_RAD;
  const moonUp = moon !== null && elevationOf(moon.direction) > -MOON_RADIUS_RAD;
  const clear = 1 - cloud;

  const source = (direction: Vec3, inAir: number, share: number, airGain: Vec3, gain: Vec3): Source => {
    const elevation = elevationOf(direction);
    const lux = (heightKm: number) => times(directSun(visibility_km, elevation, heightKm), scale(gain, share));
    return {
      direction,
      air: clear > 0 ? clearAir(visibility_km, inAir, options.coarse) : null,
      airGain: scale(airGain, share),
      direct: lux(EYE_KM),
      atClouds: lux((cumulus?.base_m ?? 0) / 1000 + EYE_KM)
    };
  };
  const sources = [source(options.direction, sunElevation, 1, skyGain, sunGain)];
  if (moonUp && !sunUp)
    sources.push(
      source(
        moon.direction,
        elevationOf(moon.direction),
        moonIlluminance(moon.phase) / SUN_ILLUMINANCE_LX,
        moonGain,
        moonGain
      )
    );
  // the one that is seen as a disc and throws shadows, and lights the clouds
  const main = sources.at(-1)!;

  const veil = scale(skyGain, overcastNow(sunElevation) * cloud);
  const glow = scale(times(NIGHT_COLOR, skyGain), DARK_ZENITH * clear);
  const open = openSky(sources, veil, glow, clear, heaped ? Math.min(width, PLAIN_WIDTH[fineness]) : width);
  const clouds = heaped ? mirroredClouds(cumulus, main.direction, width, options.mirror_deg ?? null) : null;
  const upper = clouds ? cloudsBefore(open, clouds, cumulus!, options, main) : { image: open, clear: null };

  const through = clear * (clouds?.sunThrough ?? 1);
  const pixels = new Float32Array((width * width * 3) / 2);
  pixels.set(upper.image.values);
  const below = groundRadiance(irradianceOf(upper.image), main, through);
  for (let p = pixels.length / 2; p < pixels.length; p += 3) pixels.set(below, p);
  return {
    width,
    height: width / 2,
    pixels,
    disc: discOf(main, scale(main.direct, through), sunUp || !moonUp ? null : moon, options.direction, through),
    stars: { share: clear * starShare(sunElevation), clear: upper.clear }
  };
}

/** Heaped clouds as they are without a mirror, each then seen at the other side of its plane. */
function mirroredClouds(cumulus: Cumulus, source: Vec3, width: number, mirror_deg: number | null): CloudImage {
  if (mirror_deg === null) return cloudImage(cumulus, source, width);
  const image = cloudImage(cumulus, mirrored(source, mirror_deg), width);
  // azimuths a and 2 w - a change places, w that of the plane
  const [east, , south] = mirrorWay(mirror_deg);
  const plane = Math.atan2(south, east);
  const texels = new Float32Array(image.texels.length);
  for (let i = 0; i < width; i++) {
    const x = ((2 * plane - azimuthOf(i, width)) / (2 * Math.PI) + 0.5) * width - 0.5;
    const x0 = Math.floor(x);
    const [left, right] = [x0, x0 + 1].map((c) => ((c % width) + width) % width) as [number, number];
    for (let row = 0; row < texels.length; row += width * 3)
      for (let k = 0; k < 3; k++)
        texels[row + i * 3 + k] =
          image.texels[row + left * 3 + k]! * (1 - (x - x0)) + image.texels[row + right * 3 + k]! * (x - x0);
  }
  return { ...image, texels };
}

/** The upper half of a latitude-longitude image of that width. */
interface UpperHalf {
  width: number;
  values: Float32Array;
}

const heightOfRow = (row: number, width: number): number => Math.PI / 2 - ((row + 0.5) / (width / 2)) * Math.PI;
const azimuthOf = (column: number, width: number): number => ((column + 0.5) / width - 0.5) * 2 * Math.PI;

/** Without heaped clouds. `veil`: zenith of the overcast sky's part; `glow`: of the night's own. */
function openSky(sources: readonly Source[], veil: Vec3, glow: Vec3, clear: number, width: number): UpperHalf {
  const values = new Float32Array((width * width * 3) / 4);
  const air = [0, 0, 0];
  const azimuths = sources.map(({ direction }) => Math.atan2(direction[2], direction[0]));
  for (let j = 0; j < width / 4; j++) {
    const h = heightOfRow(j, width);
    const [sin, cos] = [Math.sin(h), Math.cos(h)];
    // low airglow is dimmed by the air before it
    const [overcast, dark] = [overcastRelative(sin), vanRhijn(h) * (0.75 + 0.25 * sin)];
    for (let i = 0; i < width; i++) {
      const o = (j * width + i) * 3;
      const azimuth = azimuthOf(i, width);
      for (let k = 0; k < 3; k++) values[o + k] = veil[k]! * overcast + glow[k]! * dark;
      for (const [n, { direction: d, air: lit, airGain }] of sources.entries()) {
        if (!lit) continue;
        airRadiance(
          lit,
          h,
          azimuth - azimuths[n]!,
          cos * Math.cos(azimuth) * d[0] + sin * d[1] + cos * Math.sin(azimuth) * d[2],
          air
        );
        for (let k = 0; k < 3; k++) values[o + k] = values[o + k]! + clear * air[k]! * airGain[k]!;
      }
    }
  }
  return { width, values };
}

/** What an upper half brings to the ground, lx. */
function irradianceOf({ width, values }: UpperHalf): Vec3 {
  const sum: [number, number, number] = [0, 0, 0];
  for (let j = 0; j < width / 4; j++) {
    const h = heightOfRow(j, width);
    const weight = (Math.sin(h) * Math.cos(h) * 4 * Math.PI * Math.PI) / (width * width);
    for (let i = 0, o = j * width * 3; i < width; i++, o += 3)
      for (let k = 0; k < 3; k++) sum[k as 0 | 1 | 2] += values[o + k]! * weight;
  }
  return sum;
}

/** Clouds stand before the sky behind them and behind the haze before them. */
function cloudsBefore(
  open: UpperHalf,
  clouds: CloudImage,
  cumulus: Cumulus,
  { cloud, visibility_km }: SkyOptions,
  main: Source
): { image: UpperHalf; clear: Uint8Array } {
  const { width, texels } = clouds;
  const values = new Float32Array((width * width * 3) / 4);
  const clear = new Uint8Array((width * width) / 2);
  const fromSky = irradianceOf(open);
  const under = groundRadiance(fromSky, main, (1 - cloud) * (1 - SHADED * cumulus.cover));
  // a cloud sees more of the sky than of the ground
  const around = fromSky.map((e, k) => 0.75 * (e / Math.PI) + 0.25 * under[k]!);
  const ratio = open.width / width;
  for (let j = 0; j < width / 4; j++) {
    // Koschmieder 1924, for a way whose haze lies below the clouds
    const way = cumulus.base_m / 1000 / Math.max(0.01, Math.sin(heightOfRow(j, width)));
    const before = Math.exp((-3.912 / visibility_km) * way * HAZE_BELOW);
    const y = Math.max(0, Math.min(open.width / 4 - 1, (j + 0.5) * ratio - 0.5));
    const y0 = Math.floor(y);
    const y1 = Math.min(open.width / 4 - 1, y0 + 1);
    for (let i = 0; i < width; i++) {
      const x = (i + 0.5) * ratio - 0.5;
      const x0 = Math.floor(x);
      const [left, right] = [((x0 + open.width) % open.width) * 3, ((x0 + 1) % open.width) * 3];
      const [fx, fy] = [x - x0, y - y0];
      const o = (j * width + i) * 3;
      const [lit, scattered, seen] = [texels[o]!, texels[o + 1]!, texels[o + 2]!];
      const hides = before * (1 - seen);
      for (let k = 0; k < 3; k++) {
        const [p, q] = [y0 * open.width * 3 + k, y1 * open.width * 3 + k];
        const behind =
          (open.values[p + left]! * (1 - fx) + open.values[p + right]! * fx) * (1 - fy) +
          (open.values[q + left]! * (1 - fx) + open.values[q + right]! * fx) * fy;
        // a veil lies before all of it
        const own = (1 - cloud) * (lit * main.atClouds[k]! + scattered * around[k]!);
        values[o + k] = behind * (1 - hides * (1 - cloud)) + before * own;
      }
      clear[j * width + i] = Math.round(255 * (1 - hides));
    }
  }
  return { image: { width, values }, clear };
}

/** Radiance of the grey ground under sky and disc. */
function groundRadiance(sky: Vec3, { direct, direction }: Source, share: number): Vec3 {
  return sky.map(
    (s, k) => ((s + share * direct[k]! * Math.max(0, direction[1])) * GROUND_REFLECTANCE) / Math.PI
  ) as unknown as Vec3;
}

function discOf({ direction }: Source, lux: Vec3, moon: SkyMoon | null, toSun: Vec3, share: number): SkyImage['disc'] {
  const radius = moon ? MOON_RADIUS_RAD : SUN_RADIUS_RAD;
  const elevation = elevationOf(direction);
  if (elevation < -radius || share < MIN_DISC || !(luminance(lux) > 0)) return null;
  const oneMinusCos = capOf(radius);
  const radiance = lux.map((c) => c / (2 * Math.PI * oneMinusCos)) as unknown as Vec3;
  return {
    direction,
    radiance,
    oneMinusCos,
    limb: moon ? null : SUN_LIMB,
    moon: moon && { phase: moon.phase, side: sideOf(direction, toSun) },
    illuminance_lx: luminance(lux)
  };
}

/** Across the sky from the moon, towards the limb that the sun lights. */
function sideOf(moon: Vec3, sun: Vec3): Vec3 {
  const along = dot(moon, sun);
  return normalize([sun[0] - along * moon[0], sun[1] - along * moon[1], sun[2] - along * moon[2]]);
}
