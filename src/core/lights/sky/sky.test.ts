import { describe, expect, it } from 'vitest';
import { luminance, rec709ToXyz } from '../../color/spaces';
import { correlatedKelvin } from '../../color/spectrum';
import type { Vec3 } from '../../math/vec3';
import { directSun, makeSky, overcastRelative } from './sky-image';

const radians = (d: number) => (d * Math.PI) / 180;
const towards = (elevation: number): Vec3 => [0, Math.sin(radians(elevation)), -Math.cos(radians(elevation))];

/** Illuminance on a surface facing `normal`, from the upper half of a sky image. */
function illuminance(sky: { width: number; height: number; pixels: Float32Array }, normal: Vec3): number {
  let sum = 0;
  for (let j = 0; j < sky.height / 2; j++) {
    const t = (Math.PI * (j + 0.5)) / sky.height;
    for (let i = 0; i < sky.width; i++) {
      const p = 2 * Math.PI * ((i + 0.5) / sky.width - 0.5);
      const cosine = Math.sin(t) * Math.cos(p) * normal[0] + Math.cos(t) * normal[1] + Math.sin(t) * Math.sin(p) * normal[2];
      if (cosine <= 0) continue;
      const o = (j * sky.width + i) * 3;
      sum += luminance([sky.pixels[o]!, sky.pixels[o + 1]!, sky.pixels[o + 2]!]) * cosine * Math.sin(t) * ((2 * Math.PI * Math.PI) / (sky.width * sky.height));
    }
  }
  return sum;
}

describe('overcast sky (CIE S 011 type 16, Moon and Spencer 1942)', () => {
  const sky = makeSky({ direction: towards(40), visibility_km: 30, cloud: 1, width: 256 });
  const zenith = (() => {
    const o = (sky.width / 2) * 3;
    return luminance([sky.pixels[o]!, sky.pixels[o + 1]!, sky.pixels[o + 2]!]);
  })();
  it('is a third as bright at the horizon as at the zenith', () => expect(overcastRelative(0) / overcastRelative(1)).toBeCloseTo(1 / 3, 10));
  it('gives 7 pi / 9 of the zenith luminance on the ground', () => expect(illuminance(sky, [0, 1, 0]) / zenith / ((7 * Math.PI) / 9)).toBeCloseTo(1, 2));
  it('gives 0.396 of that on an unobstructed wall', () => expect(illuminance(sky, [1, 0, 0]) / illuminance(sky, [0, 1, 0])).toBeCloseTo(0.396, 2));
  it('hides the sun', () => expect(sky.sun).toBeNull());
});

describe('sunlight through clear air', () => {
  it('is about 100 klx facing a high sun (CIE 85, IES handbook), within 10 %', () => {
    expect(luminance(directSun(40, radians(65))) / 100_000).toBeGreaterThan(0.9);
    expect(luminance(directSun(40, radians(65))) / 100_000).toBeLessThan(1.1);
  });
  it('reddens from about 5,500 K high to below 3,000 K near the horizon', () => {
    const kelvin = (h: number) => correlatedKelvin(rec709ToXyz(directSun(40, radians(h))));
    expect(kelvin(60)).toBeGreaterThan(4950);
    expect(kelvin(60)).toBeLessThan(6050);
    expect(kelvin(3)).toBeLessThan(3000);
    for (const [low, high] of [[3, 6], [6, 12], [12, 30], [30, 60]] as const) expect(kelvin(low)).toBeLessThan(kelvin(high));
  });
});

describe('clear sky', () => {
  const sky = makeSky({ direction: towards(35), visibility_km: 40, cloud: 0, width: 256 });
  const at = (elevation: number, azimuth: number): Vec3 => {
    const j = Math.floor(((90 - elevation) / 180) * sky.height);
    const i = Math.floor((azimuth / 360 + 0.5) * sky.width) % sky.width;
    return [...sky.pixels.subarray((j * sky.width + i) * 3, (j * sky.width + i) * 3 + 3)] as unknown as Vec3;
  };
  it('is blue overhead, paler at the horizon, and brightest round the sun', () => {
    const zenith = at(85, 90);
    const horizon = at(3, 90);
    expect(zenith[2] / zenith[0]).toBeGreaterThan(1.5);
    expect(horizon[2] / horizon[0]).toBeLessThan(zenith[2] / zenith[0]);
    expect(luminance(at(35, -90))).toBeGreaterThan(3 * luminance(zenith));
  });
  it('gives the ground 8 to 25 klx of skylight (clear sky, common practice, no source)', () => {
    const lux = illuminance(sky, [0, 1, 0]);
    expect(lux).toBeGreaterThan(8_000);
    expect(lux).toBeLessThan(25_000);
  });
  it('is dark at night', () => expect(luminance(makeSky({ direction: towards(-12), visibility_km: 40, cloud: 0, width: 64 }).pixels.subarray(0, 3))).toBe(0));
});
