import { mirrored } from './sky-lights';
import { describe, expect, it } from 'vitest';
import { luminance, rec709ToXyz } from '../../color/spaces';
import { correlatedKelvin } from '../../color/spectrum';
import type { Vec3 } from '../../math/vec3';
import { limbMean } from '../sun/limb';
import { type CloudImage, cloudImage } from './clouds';
import type { Cumulus } from './cumulus';
import { directSun, makeSky, overcastRelative, type SkyOptions } from './sky-image';

const radians = (d: number) => (d * Math.PI) / 180;
const towards = (elevation: number): Vec3 => [0, Math.sin(radians(elevation)), -Math.cos(radians(elevation))];

/** Illuminance on a surface facing `normal`, from the upper half of a sky image. */
function illuminance(sky: { width: number; height: number; pixels: Float32Array }, normal: Vec3): number {
  let sum = 0;
  for (let j = 0; j < sky.height / 2; j++) {
    const t = (Math.PI * (j + 0.5)) / sky.height;
    for (let i = 0; i < sky.width; i++) {
      const p = 2 * Math.PI * ((i + 0.5) / sky.width - 0.5);
      const cosine =
        Math.sin(t) * Math.cos(p) * normal[0] + Math.cos(t) * normal[1] + Math.sin(t) * Math.sin(p) * normal[2];
      if (cosine <= 0) continue;
      const o = (j * sky.width + i) * 3;
      sum +=
        luminance([sky.pixels[o]!, sky.pixels[o + 1]!, sky.pixels[o + 2]!]) *
        cosine *
        Math.sin(t) *
        ((2 * Math.PI * Math.PI) / (sky.width * sky.height));
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
  it('is a third as bright at the horizon as at the zenith', () =>
    expect(overcastRelative(0) / overcastRelative(1)).toBeCloseTo(1 / 3, 10));
  it('gives 7 pi / 9 of the zenith luminance on the ground', () =>
    expect(illuminance(sky, [0, 1, 0]) / zenith / ((7 * Math.PI) / 9)).toBeCloseTo(1, 2));
  it('gives 0.396 of that on an unobstructed wall', () =>
    expect(illuminance(sky, [1, 0, 0]) / illuminance(sky, [0, 1, 0])).toBeCloseTo(0.396, 2));
  it('hides the sun', () => expect(sky.disc).toBeNull());
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
    for (const [low, high] of [
      [3, 6],
      [6, 12],
      [12, 30],
      [30, 60]
    ] as const)
      expect(kelvin(low)).toBeLessThan(kelvin(high));
  });
});

describe('clear sky', () => {
  it.each([-5, 2, 40])('a coarse one shows the same, the sun at %i degrees', (elevation) => {
    const options = { direction: towards(elevation), visibility_km: 40, cloud: 0, width: 128 };
    const [fine, coarse] = [makeSky(options).pixels, makeSky({ ...options, coarse: true }).pixels];
    const apart = Array.from({ length: fine.length / 6 }, (_, i) =>
      Math.abs(coarse[i * 3 + 1]! / fine[i * 3 + 1]! - 1)
    ).sort((a, b) => a - b);
    expect(apart[Math.floor(0.95 * apart.length)]!).toBeLessThan(0.02);
    expect(apart.at(-1)!).toBeLessThan(0.2);
  });
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
  it('has its sun darken towards the edge, its light unchanged', () => {
    const { radiance, oneMinusCos, illuminance_lx, limb } = sky.disc!;
    expect((luminance(radiance) * 2 * Math.PI * oneMinusCos) / illuminance_lx).toBeCloseTo(1, 9);
    // the mean of a disc whose edge is darker lies below its middle; blue falls off most (Hestroffer and Magnan 1998)
    expect(limb![2]).toBeGreaterThan(limb![0]);
    for (const u of limb!) expect(limbMean(u)).toBeLessThan(1);
  });
  it('gives the ground what sun and sky bring, each as strong and as warm as it is set', () => {
    const below = (options: Partial<SkyOptions>) => [
      ...makeSky({ direction: towards(35), visibility_km: 40, cloud: 0, width: 64, ...options }).pixels.slice(-3)
    ];
    const [plain, sunny, blue] = [below({}), below({ sunGain: [2, 2, 2] }), below({ skyGain: [0, 0, 1] })];
    expect(sunny[1]! / plain[1]!).toBeGreaterThan(1.5);
    expect(sunny[1]! / plain[1]!).toBeLessThan(2);
    expect(blue[0]).toBeLessThan(plain[0]!);
    expect(blue[2]).toBeCloseTo(plain[2]!, 6);
  });
});

describe('twilight and night', () => {
  const lux = (elevation: number, more: Partial<SkyOptions> = {}) =>
    illuminance(
      makeSky({ direction: towards(elevation), visibility_km: 40, cloud: 0, width: 128, ...more }),
      [0, 1, 0]
    );
  it(
    'grows dark as measured: 3.4 lx at 6 degrees below the horizon, 0.008 at 12, 0.00065 at 18 ' +
      '(Explanatory Supplement to the Astronomical Almanac 1992, from memory), within a factor of 2.5',
    () => {
      for (const [elevation, measured] of [
        [-6, 3.4],
        [-12, 0.008],
        [-18, 0.00065]
      ] as const) {
        expect(lux(elevation) / measured).toBeGreaterThan(1 / 2.5);
        expect(lux(elevation) / measured).toBeLessThan(2.5);
      }
    }
  );
  it('falls steadily, and no further than to the glow of the sky itself', () => {
    const all = [2, 0, -2, -4, -6, -9, -12, -15, -18].map((e) => lux(e));
    for (let i = 1; i < all.length; i++) expect(all[i]).toBeLessThan(all[i - 1]!);
    expect(lux(-40) / lux(-18)).toBeGreaterThan(0.9);
  });
  it('has a full moon of about 0.2 lx with a quarter-degree disc, which lights the air too, and none beside the sun', () => {
    const moon = { direction: towards(40), phase: 0 };
    const night = makeSky({ direction: towards(-30), visibility_km: 40, cloud: 0, width: 128, moon });
    expect(night.disc!.illuminance_lx).toBeGreaterThan(0.12);
    expect(night.disc!.illuminance_lx).toBeLessThan(0.28);
    expect(night.disc!.oneMinusCos).toBeCloseTo(1 - Math.cos(radians(0.259)), 7);
    expect(lux(-30, { moon }) / lux(-30)).toBeGreaterThan(5);
    expect(lux(-30, { moon, moonGain: [16, 16, 16] }) / lux(-30, { moon })).toBeCloseTo(16, 0);
    expect(makeSky({ direction: towards(20), visibility_km: 40, cloud: 0, width: 64, moon }).disc!.moon).toBeNull();
    expect(makeSky({ direction: towards(-30), visibility_km: 40, cloud: 0, width: 64 }).disc).toBeNull();
  });
  it('shows stars when the sun is 12 degrees down, less through a veil, none by day', () => {
    const share = (elevation: number, cloud = 0) =>
      makeSky({ direction: towards(elevation), visibility_km: 40, cloud, width: 64 }).stars.share;
    expect([share(10), share(-12), share(-40, 0.25)]).toEqual([0, 1, 0.75]);
    expect(share(-8)).toBeGreaterThan(0);
    expect(share(-8)).toBeLessThan(1);
  });
});

describe('heaped clouds', () => {
  const cumulus: Cumulus = { cover: 0.4, base_m: 1200, seed: 3, sun: 'free' };
  const WIDTH = 384;
  const source = towards(40);
  const look = (
    image: CloudImage,
    visit: (lit: number, around: number, seen: number, toSun: number, elevation: number) => void
  ) => {
    for (let j = 0; j < image.height / 2; j++) {
      const h = Math.PI / 2 - ((j + 0.5) / image.height) * Math.PI;
      for (let i = 0; i < image.width; i++) {
        const azimuth = ((i + 0.5) / image.width - 0.5) * 2 * Math.PI;
        const toSun = Math.sin(h) * source[1] + Math.cos(h) * Math.sin(azimuth) * source[2];
        const o = (j * image.width + i) * 3;
        visit(image.texels[o]!, image.texels[o + 1]!, image.texels[o + 2]!, toSun, h);
      }
    }
  };
  it('cover as much overhead as they say, more when more', () => {
    const covered = (cover: number) => {
      let [all, hidden] = [0, 0];
      // several skies: one has but a few clouds overhead
      for (const seed of [1, 2, 3, 4, 5, 6])
        look(cloudImage({ ...cumulus, cover, seed, sun: 'as it comes' }, source, WIDTH), (_l, _a, seen, _s, h) => {
          if (h < 0.9) return;
          all += Math.cos(h);
          if (seen < 0.5) hidden += Math.cos(h);
        });
      return hidden / all;
    };
    const [few, many] = [covered(0.25), covered(0.65)];
    expect(Math.abs(few - 0.25)).toBeLessThan(0.14);
    expect(Math.abs(many - 0.65)).toBeLessThan(0.14);
  });
  it('absorb nothing and give back no more than they get: what is lit from all sides alike looks no brighter than that', () => {
    look(cloudImage(cumulus, source, WIDTH), (_lit, around, seen) => {
      expect(seen).toBeGreaterThanOrEqual(0);
      expect(around + seen).toBeLessThanOrEqual(1 + 1e-5);
    });
  });
  it('are as bright as clouds in the sun, away from it: 10,000 to 45,000 cd/m2 (tables of luminances, from memory)', () => {
    let most = 0;
    look(cloudImage(cumulus, source, WIDTH), (lit, _around, _seen, toSun) => {
      if (toSun < 0.3) most = Math.max(most, lit);
    });
    const cdm2 = most * luminance(directSun(40, radians(40), 1.2));
    expect(cdm2).toBeGreaterThan(10_000);
    expect(cdm2).toBeLessThan(45_000);
  });
  it('leave the sun free or hide it, as is wanted, and its light on the ground with it', () => {
    const lux = (sun: Cumulus['sun']) =>
      makeSky({ direction: source, visibility_km: 40, cloud: 0, width: WIDTH, cumulus: { ...cumulus, sun } }).disc
        ?.illuminance_lx ?? 0;
    expect(lux('free') / luminance(directSun(40, radians(40)))).toBeGreaterThan(0.95);
    expect(lux('behind') / luminance(directSun(40, radians(40)))).toBeLessThan(0.05);
  });
  it.each([0, 35, -100])('mirrored about %f degrees they change sides with all of the sky', (mirror_deg) => {
    const options = { visibility_km: 40, cloud: 0, width: WIDTH, cumulus };
    const plain = makeSky({ ...options, direction: source }).pixels;
    const turned = makeSky({ ...options, direction: mirrored(source, mirror_deg), mirror_deg }).pixels;
    // the plane's azimuth from +X towards +Z is mirror_deg + 90 degrees to the left of +X
    const plane = Math.atan2(-Math.cos(radians(mirror_deg)), -Math.sin(radians(mirror_deg)));
    const sums = { x: 0, y: 0, xx: 0, yy: 0, xy: 0, n: 0 };
    for (let j = 4; j < WIDTH / 4 - 4; j++)
      for (let i = 0; i < WIDTH; i++) {
        const azimuth = ((i + 0.5) / WIDTH - 0.5) * 2 * Math.PI;
        const other = Math.round(((2 * plane - azimuth) / (2 * Math.PI) + 0.5) * WIDTH - 0.5);
        const blueness = (pixels: Float32Array, column: number) => {
          const o = (j * WIDTH + (((column % WIDTH) + WIDTH) % WIDTH)) * 3;
          return pixels[o + 2]! / (pixels[o]! + pixels[o + 1]! + pixels[o + 2]!);
        };
        const [x, y] = [blueness(plain, other), blueness(turned, i)];
        sums.n++;
        sums.x += x;
        sums.y += y;
        sums.xx += x * x;
        sums.yy += y * y;
        sums.xy += x * y;
      }
    const { x, y, xx, yy, xy, n } = sums;
    expect((n * xy - x * y) / Math.sqrt((n * xx - x * x) * (n * yy - y * y))).toBeGreaterThan(0.95);
  });
  it('are the same for the same seed and others for another', () => {
    const a = cloudImage(cumulus, source, 128).texels;
    const b = cloudImage({ ...cumulus, seed: 9 }, source, 128).texels;
    expect(cloudImage({ ...cumulus }, [...source], 128).texels).toBe(a);
    expect([...b]).not.toEqual([...a]);
  });
});
