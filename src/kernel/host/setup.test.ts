import { describe, expect, it } from 'vitest';
import { createCameraFrame } from '../../core/camera/lens';
import { buildImportanceGrid } from '../../core/lights/captured/importance';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import { viewFrom } from '../../../tests/support/scenes';
import { NO_LIMITS } from './settings';
import { decodeSetup, encodeSetup, type RenderSetup } from './setup';

const pixels = Float32Array.from({ length: 8 * 4 * 3 }, (_, i) => i / 7);
const image: SurroundingsLight = {
  even: null,
  image: { pixels, width: 8, height: 4, scale: 0.1, rotation: 1 / 3, grid: buildImportanceGrid(pixels, 8, 4) },
  sun: { direction: [0, 1, 0], radiance: [1e9, 0.1 + 0.2, 1], oneMinusCos: 1e-5 }
};
const setupWith = (light: SurroundingsLight): RenderSetup => ({
  pack: 'a'.repeat(64),
  packBytes: 1000,
  rigKey: 'a rig',
  rigBytes: 7,
  rig: Uint8Array.of(1, 2, 3, 4, 5, 6, 7),
  exact: true,
  settings: {
    width: 64,
    height: 48,
    camera: createCameraFrame(viewFrom([0.1, 1.2, 4], [0, 0.5, 0], { f_number: 2.8 }), 4 / 3)!,
    bounces: 8,
    limits: NO_LIMITS,
    layers: 0,
    aovs: null,
    firefly: 0,
    ground: null,
    seed: 1,
    light,
    indoors: true
  },
  exposure: { ev100: null, paper: 0.55, firefly: 4 },
  samples: 64,
  grain: 1.5,
  minSamples: 32,
  lightKey: 'a light'
});

describe('a setup as bytes', () => {
  it('comes back as it was, to the last bit', () => {
    const setup = setupWith(image);
    expect(decodeSetup(encodeSetup(setup, true), () => null)).toEqual(setup);
    const even = setupWith({ even: [1, 2, 3], image: null, sun: null });
    expect(decodeSetup(encodeSetup(even, true), () => null)).toEqual(even);
  });

  it('goes without its image where that is known, turned and brightened as it is now', () => {
    const now = { ...image, image: { ...image.image!, scale: 2, rotation: 0.5 } };
    const bytes = encodeSetup(setupWith(now), false);
    expect(bytes.length).toBeLessThan(2000);
    expect(decodeSetup(bytes, (key) => (key === 'a light' ? image : null)).settings.light).toEqual(now);
    expect(() => decodeSetup(bytes, () => null)).toThrow(/expected the light a light to be known/);
    const without = { ...setupWith(now), rig: null };
    expect(decodeSetup(encodeSetup(without, true), () => null)).toEqual(without);
  });
});
