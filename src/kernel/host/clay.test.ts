import { describe, expect, it } from 'vitest';
import { makeScene, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { CLAY_DEFAULTS } from '../../core/brief/brief';
import { inClay } from '../../core/scene/clay';

// A flat sheet with nothing round it, under the same light from everywhere: it gives back its reflectance (Lambert), a
// hole shows light 1.
function sheet() {
  const scene = makeScene([
    quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], {
      alphaMode: 'mask',
      baseTexture: { texture: 0, uvSet: 0, wrapS: 'repeat', wrapT: 'repeat', transform: [1, 0, 0, 0, 1, 0] }
    })
  ]);
  // red, with a hole in every second column
  scene.textures = [
    { name: 'net', width: 2, height: 1, pixels: Uint8Array.of(255, 0, 0, 255, 0, 255, 0, 0), encoded: true }
  ];
  scene.geometry.uv0.set([0, 0, 9, 0, 9, 9, 0, 9]);
  scene.geometry.colors.fill(0);
  for (let v = 0; v < 4; v++) scene.geometry.colors.set([10_000, 50_000, 23_000, 65_535], v * 4);
  return scene;
}

describe('clay in the kernel', () => {
  it('is grey whatever the picture and the vertices tint, and keeps the holes', () => {
    const grey = 0.25;
    const { pixels } = renderScene(inClay(sheet(), { ...CLAY_DEFAULTS, grey }), viewFrom([0, 5, 0], [0, 0, 0]), {
      width: 24,
      height: 24,
      samples: 64
    });
    for (const p of pixels) expect(Math.max(...p) - Math.min(...p)).toBeLessThan(1e-3);
    const sorted = pixels.map((p) => p[0]).sort((a, b) => a - b);
    expect(sorted[10]).toBeCloseTo(grey, 2);
    expect(sorted.at(-10)).toBeCloseTo(1, 2);
  });
});
