import { describe, expect, it } from 'vitest';
import { makeScene } from '../../../tests/support/scenes';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from '../brief/brief';
import type { SurroundingsLight } from '../lights/surroundings-light';
import { isDark, makeLight, makeNeutralLight, neutralKey } from './light';

const scene = makeScene([]);
const sky: Brief = { ...BRIEF_DEFAULTS, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, cloud: 0.2 } };
const alone: Brief = { ...sky, lamps: { ...BRIEF_DEFAULTS.lamps, only: 'Shelf lamps' } };

describe('the light of a brief', () => {
  it('has one key for what differs by strength and turn alone, and another where one group of lamps is seen alone', () => {
    const stronger: Brief = {
      ...sky,
      surroundings: {
        ...SURROUNDINGS_DEFAULTS.sky,
        cloud: 0.2,
        brightness_ev: 1,
        sun_ev: 0.5,
        sky_ev: 0.5,
        moon_ev: 0.5
      }
    };
    expect(neutralKey(stronger)).toBe(neutralKey(sky));
    // ground and clouds show what the sun has against the sky
    expect(
      neutralKey({ ...stronger, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, cloud: 0.2, sun_ev: -2 } })
    ).not.toBe(neutralKey(sky));
    // who keeps lights by their keys must not find none where there is one
    expect(neutralKey(alone)).not.toBe(neutralKey(sky));
    expect(makeNeutralLight(alone, scene, null)).toEqual({ even: null, image: null, sun: null });
  });
  it('dims sun and sky apart', () => {
    const plain = makeLight(sky, scene, null);
    const { image, sun } = makeLight(
      { ...sky, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, cloud: 0.2, brightness_ev: 1, sun_ev: -2, sky_ev: 1 } },
      scene,
      null
    );
    expect(image!.scale).toBe(4);
    expect(sun!.radiance[0] / plain.sun!.radiance[0]).toBeCloseTo(0.5, 9);
    // the ground is lit by both: by less than four times as much
    const ground = (light: SurroundingsLight) => light.image!.scale * light.image!.pixels.at(-1)!;
    expect(ground({ even: null, image, sun }) / ground(plain)).toBeLessThan(4);
    expect(ground({ even: null, image, sun }) / ground(plain)).toBeGreaterThan(0.5);
  });
  it('is dark when nothing shines, which a lamp that is on ends', () => {
    expect(isDark(makeLight(sky, scene, null), scene)).toBe(false);
    const none = makeLight(alone, scene, null);
    expect(isDark(none, scene)).toBe(true);
    expect(
      isDark(none, { ...scene, lights: [{ kind: 'point', name: '', position: [0, 1, 0], intensity: [0, 0, 0] }] })
    ).toBe(true);
    expect(
      isDark(none, { ...scene, lights: [{ kind: 'point', name: '', position: [0, 1, 0], intensity: [1, 1, 1] }] })
    ).toBe(false);
  });
});
