/**
 * Glowing surfaces that are partly there: cut out, blended, or with a picture that says where they glow. Their light on a
 * floor is that of the visible part, whichever way it is found. Source: J. H. Lambert, Photometria, 1760, in the form of
 * his polygon formula: E = L / 2 sum of angle_i (normal, Gamma_i); alpha as coverage: glTF 2.0, section 3.9.4.
 */
import { describe, expect, it } from 'vitest';
import { dark, glowing, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { cross, dot, normalize, type Vec3 } from '../../core/math/vec3';
import type { SceneMaterial } from '../../core/scene/scene';

const HEIGHT_M = 1;
const REFLECTANCE = 0.5;
const PX = 64;

/** Irradiance of the floor at (x, 0, 0) under a rectangle at the height of the pane, over its radiance. */
function lambert(x: number, [x0, x1, z0, z1]: readonly [number, number, number, number]): number {
  const corners = [
    [x0, z0],
    [x1, z0],
    [x1, z1],
    [x0, z1]
  ].map(([u, z]) => normalize([u! - x, HEIGHT_M, z!] as Vec3));
  let sum = 0;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % 4]!;
    sum += Math.acos(Math.min(1, dot(a, b))) * normalize(cross(a, b))[1];
  });
  return Math.abs(sum) / 2;
}

const texture = {
  texture: 0,
  uvSet: 0 as const,
  wrapS: 'clamp' as const,
  wrapT: 'clamp' as const,
  transform: [1, 0, 0, 0, 1, 0] as [number, number, number, number, number, number]
};

/** What the floor at x sends up under a pane of a square metre, over what the visible part would by Lambert. */
function floorAt(
  x: number,
  material: Partial<SceneMaterial>,
  texel: ((u: number, v: number) => readonly number[]) | null,
  visible: readonly [number, number, number, number]
): number {
  const half = 0.02;
  const scene = makeScene([
    quad([x - half, 0, half], [x + half, 0, half], [x + half, 0, -half], [x - half, 0, -half], matte(REFLECTANCE)),
    // faces down
    quad([-0.5, HEIGHT_M, -0.5], [0.5, HEIGHT_M, -0.5], [0.5, HEIGHT_M, 0.5], [-0.5, HEIGHT_M, 0.5], {
      ...glowing(1),
      ...material
    })
  ]);
  if (texel) {
    const texels = Array.from({ length: PX * PX }, (_, i) =>
      texel(((i % PX) + 0.5) / PX, (Math.floor(i / PX) + 0.5) / PX)
    );
    scene.textures = [{ name: 'where', width: PX, height: PX, pixels: Uint8Array.from(texels.flat()), encoded: false }];
  }
  scene.geometry.uv0.set([0, 0, 1, 0, 1, 1, 0, 1], 8);
  const view = viewFrom([x + 0.3, 0.3, 0], [x, 0, 0], { projection: 'parallel', height_m: 0.01 });
  const { pixels } = renderScene(scene, view, { width: 8, height: 8, samples: 4096, bounces: 1, light: dark });
  const mean = pixels.reduce((sum, p) => sum + p[0], 0) / pixels.length;
  return mean / ((REFLECTANCE / Math.PI) * lambert(x, visible));
}

const WHOLE = [-0.5, 0.5, -0.5, 0.5] as const;
const QUARTER = [-0.5, 0, -0.5, 0] as const;
const HALF = [-0.5, 0, -0.5, 0.5] as const;
const white = (alpha: number) => [255, 255, 255, alpha];
const grey = (value: number) => [value, value, value, 255];

describe.each([0.1, 0.6, 2])('the floor %s m aside of a glowing pane a metre above it', (x) => {
  it('has the light of an opaque pane by Lambert’s formula', () => {
    expect(floorAt(x, {}, null, WHOLE)).toBeCloseTo(1, 2);
  });
  it('has the light of the quarter that is not cut out', () => {
    const cut = { alphaMode: 'mask' as const, baseTexture: texture } satisfies Partial<SceneMaterial>;
    const there = floorAt(x, cut, (u, v) => white(u < 0.5 && v < 0.5 ? 255 : 0), QUARTER);
    expect(Math.abs(there - 1)).toBeLessThan(0.02);
  });
  it.each([0.2, 0.5, 0.8])('has %s of the light when so much of it covers', (alpha) => {
    const blended = {
      alphaMode: 'blend' as const,
      baseColor: [0, 0, 0, alpha] as [number, number, number, number]
    } satisfies Partial<SceneMaterial>;
    expect(Math.abs(floorAt(x, blended, null, WHOLE) / alpha - 1)).toBeLessThan(0.02);
  });
  it('has the light of the half that a picture lets glow', () => {
    const there = floorAt(x, { emissiveTexture: texture }, (u) => grey(u < 0.5 ? 255 : 0), HALF);
    expect(Math.abs(there - 1)).toBeLessThan(0.02);
  });
});
