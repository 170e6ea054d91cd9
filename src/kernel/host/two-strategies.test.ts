import { expect, it } from 'vitest';
import { dark, glowing, makeScene, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { type Albedos, evaluate, type SurfaceValues } from '../../core/integrator/scattering';
import { distribution, lambda, sampleVisibleNormal } from '../../core/materials/ggx';
import { add, dot, length, normalize, scale, subtract, type Vec3 } from '../../core/math/vec3';
import { createRandom } from '../../core/sampling/random';

/**
 * Direct light by both strategies, a point on the lamp and a direction of the surface, weighed together (Veach, Robust
 * Monte Carlo Methods, 1997, chapter 9): by his theorem 9.2 a balanced sum of one sample each has at most the variance
 * of either strategy alone and half the squared mean. Glossy ground and square lamps as in his figure 9.2; each
 * strategy alone is written here.
 */
const metal = (roughness: number): SurfaceValues => ({
  base: [0.9, 0.9, 0.9],
  metallic: 1,
  roughness,
  transmission: 0,
  ior: 1.5,
  specular: 1,
  solid: false,
  entering: true
});
const S = Math.SQRT1_2;
const TO_EYE: Vec3 = [-S, S, 0];
/** The lamp stands where the ground mirrors the eye, facing back. */
const LAMP_FAR = 1.5;
const LAMP_AT: Vec3 = [S * LAMP_FAR, S * LAMP_FAR, 0];
const LAMP_U: Vec3 = [S, -S, 0];
const LAMP_FACES: Vec3 = [-S, -S, 0];
/** The frame of the ground, z up. */
const local = ([x, y, z]: Vec3): Vec3 => [x, -z, y];

/**
 * What a white metal sends on by single scattering, which the kernel makes up for (Turquin 2019): the mean of G2 / G1
 * over visible normals.
 */
function knownAt(roughness: number): Albedos {
  const random = createRandom(4);
  const [wo, alpha, n] = [local(TO_EYE), roughness ** 2, 40_000];
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const h = sampleVisibleNormal(wo, alpha, random(), random());
    const wi = subtract(scale(h, 2 * dot(wo, h)), wo);
    if (wi[2] > 0) sum += (1 + lambda(wo, alpha)) / (1 + lambda(wo, alpha) + lambda(wi, alpha));
  }
  return { metal: () => sum / n, glass: () => 1, sheen: () => 1 };
}

const moments = (values: readonly number[]) => {
  const mean = values.reduce((a, b) => a + b) / values.length;
  return { mean, variance: values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (values.length - 1) };
};

function byLamp(roughness: number, known: Albedos, size: number, n: number) {
  const random = createRandom(5);
  return moments(
    Array.from({ length: n }, () => {
      const at = add(LAMP_AT, add(scale(LAMP_U, size * (random() - 0.5)), [0, 0, size * (random() - 0.5)]));
      const far = length(at);
      const way = scale(at, 1 / far);
      if (way[1] <= 0) return 0;
      return (
        (evaluate(metal(roughness), known, local(TO_EYE), local(way))[0] * -dot(way, LAMP_FACES) * size * size) /
        (far * far)
      );
    })
  );
}

function bySurface(roughness: number, known: Albedos, size: number, n: number) {
  const random = createRandom(6);
  const alpha = roughness ** 2;
  const wo = local(TO_EYE);
  return moments(
    Array.from({ length: n }, () => {
      const h = sampleVisibleNormal(wo, alpha, random(), random());
      const wi: Vec3 = subtract(scale(h, 2 * dot(wo, h)), wo);
      if (wi[2] <= 0) return 0;
      const way: Vec3 = [wi[0], wi[2], -wi[1]];
      const facing = -dot(way, LAMP_FACES);
      if (facing <= 0) return 0;
      const off = subtract(scale(way, LAMP_FAR / facing), LAMP_AT);
      if (Math.max(Math.abs(dot(off, LAMP_U)), Math.abs(off[2])) > size / 2) return 0;
      const pdf = distribution(normalize(add(wo, wi)), alpha) / ((1 + lambda(wo, alpha)) * 4 * wo[2]);
      return evaluate(metal(roughness), known, wo, wi)[0] / pdf;
    })
  );
}

function byKernel(roughness: number, size: number) {
  const h = size / 2;
  const corner = (u: number, z: number): Vec3 => add(LAMP_AT, add(scale(LAMP_U, u), [0, 0, z]));
  const lamp = quad(corner(-h, -h), corner(-h, h), corner(h, h), corner(h, -h), { ...glowing(1), twoSided: true });
  const scene = makeScene([
    quad([-0.1, 0, 0.1], [0.1, 0, 0.1], [0.1, 0, -0.1], [-0.1, 0, -0.1], {
      metallic: 1,
      roughness,
      baseColor: [0.9, 0.9, 0.9, 1]
    }),
    lamp
  ]);
  const view = viewFrom(TO_EYE, [0, 0, 0], { projection: 'parallel', height_m: 1e-4 });
  // one sample a pixel: pixels are independent of each other
  return moments(
    [1, 2, 3, 4].flatMap((seed) =>
      renderScene(scene, view, { width: 64, height: 64, samples: 1, bounces: 1, light: dark, seed }).pixels.map(
        (p) => p[0]
      )
    )
  );
}

it(
  'both strategies together are never worse than the better one by more than half the squared mean, and ' +
    'each alone is at times far worse',
  () => {
    let worstLamp = 0;
    let worstSurface = 0;
    for (const roughness of [0.1, 0.2, 0.35, 0.5]) {
      const known = knownAt(roughness);
      for (const size of [0.02, 0.1, 0.5, 2]) {
        const [lamp, surface, both] = [
          byLamp(roughness, known, size, 40_000),
          bySurface(roughness, known, size, 40_000),
          byKernel(roughness, size)
        ];
        const better = lamp.variance < surface.variance ? lamp : surface;
        const said =
          `roughness ${roughness}, lamp of ${size} m: ${both.variance} for ${lamp.variance} and ` +
          `${surface.variance}, mean ${both.mean} for ${better.mean}`;
        expect(Math.abs(both.mean / better.mean - 1), said).toBeLessThan(0.03);
        // a tenth for the error of the variances themselves
        expect(both.variance, said).toBeLessThan(1.1 * (better.variance + better.mean ** 2 / 2));
        worstLamp = Math.max(worstLamp, lamp.variance / both.variance);
        worstSurface = Math.max(worstSurface, surface.variance / both.variance);
      }
    }
    expect(worstLamp).toBeGreaterThan(10);
    expect(worstSurface).toBeGreaterThan(10);
  }
);
