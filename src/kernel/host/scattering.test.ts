import { describe, expect, it } from 'vitest';
import {
  dark,
  glowing,
  kernelModule,
  makeScene,
  matte,
  quad,
  renderScene,
  sphere,
  viewFrom
} from '../../../tests/support/scenes';
import { createCameraFrame } from '../../core/camera/lens';
import { traceReference } from '../../core/integrator/reference';
import { type Albedos, evaluate, type LayerValues, type SurfaceValues } from '../../core/integrator/scattering';
import { glassAlbedo, metalAlbedo } from '../../core/materials/albedo-tables';
import { sheenAlbedo } from '../../core/materials/sheen';
import { normalize, type Vec3 } from '../../core/math/vec3';
import { createRandom } from '../../core/sampling/random';
import { ALBEDO_STEPS, GLASS_ROUGH_STEPS, P_METAL_ALBEDO_PTR, P_SHEEN_ALBEDO_PTR, PACK } from '../assembly/layout';
import { createMemory, instantiate } from './kernel';

const METAL = metalAlbedo(ALBEDO_STEPS);
const SHEEN = sheenAlbedo(ALBEDO_STEPS);
const GLASS = glassAlbedo(1.5, GLASS_ROUGH_STEPS, ALBEDO_STEPS);
function look(table: Float32Array, rows: number, row: number, cosine: number, from = 0): number {
  const r = Math.min(1, Math.max(0, row)) * (rows - 1);
  const c = Math.sqrt(Math.min(1, Math.max(0, cosine))) * (ALBEDO_STEPS - 1);
  const r0 = Math.min(Math.floor(r), rows - 2);
  const c0 = Math.min(Math.floor(c), ALBEDO_STEPS - 2);
  const at = (i: number, j: number) => table[from + i * ALBEDO_STEPS + j]!;
  const [fr, fc] = [r - r0, c - c0];
  return (
    (at(r0, c0) * (1 - fc) + at(r0, c0 + 1) * fc) * (1 - fr) +
    (at(r0 + 1, c0) * (1 - fc) + at(r0 + 1, c0 + 1) * fc) * fr
  );
}
const albedos: Albedos = {
  metal: (roughness, cosine) => look(METAL, ALBEDO_STEPS, roughness, cosine),
  glass: (roughness, cosine, entering) =>
    look(GLASS, GLASS_ROUGH_STEPS, roughness, cosine, entering ? 0 : GLASS_ROUGH_STEPS * ALBEDO_STEPS),
  sheen: (roughness, cosine) => look(SHEEN, ALBEDO_STEPS, (roughness - 0.1) / 0.9, cosine)
};

// the kernel alone in a small memory: tables behind the pack header, scratch behind them
const memory = createMemory(PACK + (1 << 20));
const f32 = new Float32Array(memory.buffer);
const metalAt = PACK + 4096;
const glassAt = metalAt + METAL.byteLength;
const sheenAt = glassAt + GLASS.byteLength;
const scratch = sheenAt + SHEEN.byteLength;
f32.set(METAL, metalAt >> 2);
f32.set(GLASS, glassAt >> 2);
f32.set(SHEEN, sheenAt >> 2);
new Uint32Array(memory.buffer)[(PACK + P_SHEEN_ALBEDO_PTR) >> 2] = sheenAt;
new Uint32Array(memory.buffer)[(PACK + P_METAL_ALBEDO_PTR) >> 2] = metalAt;
const kernel = instantiate(kernelModule, memory, 0);

function prepare(s: SurfaceValues, wo: Vec3): void {
  const l = s.layers;
  f32.set(
    [...s.base, s.metallic, s.roughness, s.transmission, s.ior, s.solid ? 1 : 0, s.entering ? 1 : 0, l ? 1 : 0],
    scratch >> 2
  );
  if (l)
    f32.set(
      [
        ...l.specularColor,
        l.anisotropy,
        Math.cos(l.turn),
        Math.sin(l.turn),
        l.coat,
        l.coatRoughness,
        ...l.coatNormal,
        ...l.sheenColor,
        l.sheenRoughness,
        l.iridescence,
        l.filmIor,
        l.filmThickness,
        0,
        l.diffuseTransmission,
        ...l.throughColor
      ],
      (scratch >> 2) + 10
    );
  kernel.probeSurface(scratch, glassAt, ...wo);
}
const out = scratch + 256;
const read = (n: number) => [...f32.subarray(out >> 2, (out >> 2) + n)];

const plain: SurfaceValues = {
  base: [0.5, 0.4, 0.3],
  metallic: 0,
  roughness: 0.5,
  transmission: 0,
  ior: 1.5,
  specular: 1,
  solid: false,
  entering: true
};
const layers = (l: Partial<LayerValues>): LayerValues => ({
  specularColor: [1, 1, 1],
  anisotropy: 0,
  turn: 0,
  coat: 0,
  coatRoughness: 0.2,
  coatNormal: [0, 0, 1],
  sheenColor: [0, 0, 0],
  sheenRoughness: 0.4,
  iridescence: 0,
  filmIor: 1.4,
  filmThickness: 380,
  diffuseTransmission: 0,
  throughColor: [1, 1, 1],
  ...l
});

const MODELS: [string, SurfaceValues][] = [
  [
    'polished brass',
    {
      base: [0.9, 0.64, 0.3],
      metallic: 1,
      roughness: 0.15,
      transmission: 0,
      ior: 1.5,
      specular: 1,
      solid: false,
      entering: true
    }
  ],
  [
    'rough metal',
    {
      base: [0.5, 0.6, 0.7],
      metallic: 1,
      roughness: 0.8,
      transmission: 0,
      ior: 1.5,
      specular: 1,
      solid: false,
      entering: true
    }
  ],
  [
    'lacquered wood',
    {
      base: [0.4, 0.2, 0.1],
      metallic: 0,
      roughness: 0.3,
      transmission: 0,
      ior: 1.5,
      specular: 1,
      solid: false,
      entering: true
    }
  ],
  [
    'half metal',
    {
      base: [0.4, 0.5, 0.1],
      metallic: 0.5,
      roughness: 0.5,
      transmission: 0,
      ior: 1.5,
      specular: 1,
      solid: false,
      entering: true
    }
  ],
  [
    'frosted sheet',
    {
      base: [0.9, 1, 0.9],
      metallic: 0,
      roughness: 0.4,
      transmission: 1,
      ior: 1.5,
      specular: 1,
      solid: false,
      entering: true
    }
  ],
  [
    'frosted glass from outside',
    {
      base: [1, 0.9, 0.8],
      metallic: 0,
      roughness: 0.45,
      transmission: 1,
      ior: 1.5,
      specular: 1,
      solid: true,
      entering: true
    }
  ],
  [
    'brushed steel',
    { ...plain, base: [0.6, 0.62, 0.64], metallic: 1, roughness: 0.35, layers: layers({ anisotropy: 0.7, turn: 0.6 }) }
  ],
  [
    'lacquered and tilted',
    {
      ...plain,
      base: [0.4, 0.2, 0.1],
      roughness: 0.6,
      layers: layers({ coat: 1, coatRoughness: 0.3, coatNormal: normalize([0.2, -0.1, 1]) })
    }
  ],
  [
    'velvet',
    {
      ...plain,
      base: [0.2, 0.05, 0.1],
      roughness: 0.9,
      specular: 1,
      layers: layers({ sheenColor: [0.9, 0.5, 0.6], sheenRoughness: 0.45 })
    }
  ],
  [
    'milky shade',
    {
      ...plain,
      base: [0.8, 0.8, 0.75],
      roughness: 0.5,
      layers: layers({ diffuseTransmission: 0.6, throughColor: [0.9, 0.7, 0.5] })
    }
  ],
  [
    'filmed metal',
    { ...plain, base: [0.7, 0.7, 0.72], metallic: 1, roughness: 0.3, layers: layers({ iridescence: 1 }) }
  ],
  [
    'tinted gloss under a film and a coat over cloth',
    {
      ...plain,
      roughness: 0.4,
      layers: layers({
        specularColor: [1, 0.6, 0.3],
        iridescence: 0.7,
        coat: 0.6,
        sheenColor: [0.2, 0.3, 0.2],
        diffuseTransmission: 0.3,
        throughColor: [0.5, 0.9, 0.5]
      })
    }
  ],
  [
    'frosted and coated sheet',
    {
      ...plain,
      transmission: 0.8,
      roughness: 0.4,
      base: [0.9, 1, 0.9],
      layers: layers({ coat: 1, diffuseTransmission: 0.5 })
    }
  ],
  [
    'frosted glass from inside',
    {
      base: [1, 0.9, 0.8],
      metallic: 0,
      roughness: 0.45,
      transmission: 1,
      ior: 1.5,
      specular: 1,
      solid: true,
      entering: false
    }
  ]
];

const DRAWS_GRID = 20_000;

/**
 * Draws directions and holds their counts in bins of the sphere against the pdf integrated over each, `fine`2 points a
 * bin; and how much is returned. The bins' pole lies in the surface, where no lobe is so narrow that the bins would be
 * too coarse for it.
 */
function chiSquare(
  s: SurfaceValues,
  wo: Vec3,
  draws: number,
  fine: number
): { chi: number; degrees: number; returned: number } {
  prepare(s, wo);
  const random = createRandom(5);
  const bins = 12 * 24;
  const counts = new Float64Array(bins);
  const binOf = (z: number, p: number) =>
    Math.min(11, Math.floor(((z + 1) / 2) * 12)) * 24 + Math.min(23, Math.floor(((p + Math.PI) / (2 * Math.PI)) * 24));
  let returned = 0;
  for (let i = 0; i < draws; i++) {
    if (!kernel.probeSample(random(), random(), random(), out)) continue;
    const [x, y, z, r, g, b] = read(6) as [number, number, number, number, number, number];
    const at = binOf(x, Math.atan2(z, y));
    counts[at] = counts[at]! + 1;
    returned += Math.max(r, g, b) / draws;
  }
  // the expected count of a bin: its integrated pdf, by the midpoint rule on a fine grid
  let chi = 0;
  let degrees = 0;
  let pooledExpected = 0;
  let pooledCount = 0;
  for (let b = 0; b < bins; b++) {
    let integral = 0;
    for (let i = 0; i < fine; i++) {
      for (let j = 0; j < fine; j++) {
        const z = -1 + (2 * (Math.floor(b / 24) + (i + 0.5) / fine)) / 12;
        const p = -Math.PI + (2 * Math.PI * ((b % 24) + (j + 0.5) / fine)) / 24;
        const r = Math.sqrt(1 - z * z);
        kernel.probeEvaluate(z, r * Math.cos(p), r * Math.sin(p), out);
        integral += f32[(out >> 2) + 3]!;
      }
    }
    const expected = (draws * integral * (4 * Math.PI)) / bins / (fine * fine);
    if (expected < 20) {
      pooledExpected += expected;
      pooledCount += counts[b]!;
      continue;
    }
    chi += (counts[b]! - expected) ** 2 / expected;
    degrees++;
  }
  if (pooledExpected > 5) {
    chi += (pooledCount - pooledExpected) ** 2 / pooledExpected;
    degrees++;
  }
  return { chi, degrees, returned };
}

/** The value that chi-square exceeds with the chance of a normal deviate beyond `z`. Wilson and Hilferty 1931. */
const chiLimit = (degrees: number, z: number) =>
  degrees * (1 - 2 / (9 * degrees) + z * Math.sqrt(2 / (9 * degrees))) ** 3;

describe('over a grid of roughness and angle', () => {
  const roughnesses = [0.3, 0.6, 1];
  const degreesFromNormal = [8, 45, 72];
  // 1 % for the whole grid of a material, shared among its nine places (Bonferroni): a normal deviate of 3.06
  const Z = 3.06;
  it.each(MODELS)('%s: directions follow the pdf, and no more comes back than went in', (_, s) => {
    for (const roughness of roughnesses) {
      for (const angle of degreesFromNormal) {
        const t = (angle * Math.PI) / 180;
        const { chi, degrees, returned } = chiSquare(
          { ...s, roughness },
          [Math.sin(t) * 0.8, Math.sin(t) * 0.6, Math.cos(t)],
          DRAWS_GRID,
          s.solid ? 32 : 12
        );
        expect(chi, `roughness ${roughness}, ${angle} degrees`).toBeLessThan(chiLimit(degrees, Z) * 1.1);
        // radiance that leaves glass is squeezed into a narrower cone: seen from inside it gains by the square of the
        // index
        const most = s.solid && !s.entering ? s.ior ** 2 : 1;
        expect(returned, `roughness ${roughness}, ${angle} degrees`).toBeLessThan(1.015 * most);
      }
    }
  });
  it.each([
    ['metal', { metallic: 1 }],
    ['thin glass', { transmission: 1 }]
  ] as const)('white %s returns all that meets it', (_, kind) => {
    for (const roughness of roughnesses) {
      for (const angle of degreesFromNormal) {
        const t = (angle * Math.PI) / 180;
        const { returned } = chiSquare(
          { ...plain, base: [1, 1, 1], specular: 1, ...kind, roughness, layers: undefined },
          [Math.sin(t), 0, Math.cos(t)],
          DRAWS_GRID,
          1
        );
        expect(Math.abs(returned - 1), `roughness ${roughness}, ${angle} degrees`).toBeLessThan(0.03);
      }
    }
  });
});

describe('the kernel scatters as the reference does', () => {
  for (const [name, s] of MODELS) {
    it(`${name}: values equal to 1e-4`, () => {
      const random = createRandom(11);
      for (let i = 0; i < 400; i++) {
        const wo = normalize([random() * 2 - 1, random() * 2 - 1, 0.05 + random()]);
        const wi = normalize([random() * 2 - 1, random() * 2 - 1, random() * 2 - 1]);
        if (
          Math.abs(wi[2]) < 0.02 ||
          (s.layers &&
            wo[0] * s.layers.coatNormal[0] + wo[1] * s.layers.coatNormal[1] + wo[2] * s.layers.coatNormal[2] < 0.05)
        )
          continue;
        prepare(s, wo);
        kernel.probeEvaluate(...wi, out);
        const expected = evaluate(s, albedos, wo, wi);
        const got = read(3);
        for (let c = 0; c < 3; c++)
          expect(Math.abs(got[c]! - expected[c]!)).toBeLessThan(
            1e-4 * Math.max(1, expected[c]!) + 2e-3 * expected[c]! * (s.roughness < 0.2 ? 1 : 0)
          );
      }
    });

    it(`${name}: sampled directions follow the pdf (chi-square, 1 % level, fixed seed)`, () => {
      const { chi, degrees } = chiSquare(s, normalize([0.5, 0.2, 0.8]), 60_000, 24);
      // narrow lobes: the midpoint rule's own error is allowed for with 4 % of the count
      const slack = s.roughness < 0.2 ? 3 : 1.35;
      const limit = chiLimit(degrees, 2.326);
      expect(chi).toBeLessThan(limit * slack);
    });
  }
});

describe('the kernel renders as the reference integrator does', () => {
  it('a small room with metal and matte things agrees within 4 standard errors', () => {
    const white = matte(0.7);
    const room = makeScene(
      [
        quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], white),
        quad([-1, 0, -1], [1, 0, -1], [1, 2, -1], [-1, 2, -1], white),
        quad([-1, 0, 1], [-1, 0, -1], [-1, 2, -1], [-1, 2, 1], matte([0.6, 0.1, 0.1])),
        quad([1, 0, -1], [1, 0, 1], [1, 2, 1], [1, 2, -1], matte([0.1, 0.5, 0.15])),
        quad([-1, 2, -1], [1, 2, -1], [1, 2, 1], [-1, 2, 1], glowing(4, 0.5)),
        {
          ...sphere(
            [0.35, 0.4, 0.1],
            0.4,
            { baseColor: [0.9, 0.7, 0.4, 1], metallic: 1, roughness: 0.35 },
            false,
            5,
            8
          ),
          normals: undefined
        },
        {
          ...sphere([-0.4, 0.3, -0.3], 0.3, { baseColor: [0.3, 0.4, 0.7, 1], roughness: 0.4 }, false, 5, 8),
          normals: undefined
        }
      ].map((p) => (p.normals || p.indices.length <= 6 ? p : flat(p)))
    );
    const view = viewFrom([0, 1, 3.6], [0, 0.9, 0], { focal_length_mm: 28 });
    const [width, height] = [8, 8];
    const kernelPicture = renderScene(room, view, {
      width,
      height,
      samples: 4096,
      bounces: 5,
      light: { ...dark, even: [0.2, 0.2, 0.3] }
    });
    const camera = createCameraFrame(view, 1)!;
    const random = createRandom(77);
    const n = 300;
    const options = { scene: room, camera, width, height, bounces: 5, even: [0.2, 0.2, 0.3] as Vec3, albedos, random };
    let worst = 0;
    let sum = [0, 0];
    for (let y = 1; y < height - 1; y++) {
      for (let x = 1; x < width - 1; x++) {
        let mean = 0;
        let square = 0;
        for (let i = 0; i < n; i++) {
          const l = traceReference(options, x, y)[1];
          mean += l / n;
          square += (l * l) / n;
        }
        sum = [sum[0]! + mean, sum[1]! + kernelPicture.pixels[y * width + x]![1]];
        const error = Math.sqrt((square - mean * mean) / n);
        worst = Math.max(worst, Math.abs(mean - kernelPicture.pixels[y * width + x]![1]) / error);
      }
    }
    expect(worst).toBeLessThan(4);
    expect(Math.abs(sum[0]! / sum[1]! - 1)).toBeLessThan(0.03);
  });
});

/** The same triangles without shared vertices, flat. */
function flat<P extends { positions: number[]; indices: number[] }>(piece: P): P {
  const positions: number[] = [];
  const normals: number[] = [];
  for (let i = 0; i < piece.indices.length; i += 3) {
    const p = [0, 1, 2].map((k) => piece.positions.slice(piece.indices[i + k]! * 3, piece.indices[i + k]! * 3 + 3));
    const e = p[1]!.map((v, k) => v - p[0]![k]!);
    const f = p[2]!.map((v, k) => v - p[0]![k]!);
    const n = normalize([e[1]! * f[2]! - e[2]! * f[1]!, e[2]! * f[0]! - e[0]! * f[2]!, e[0]! * f[1]! - e[1]! * f[0]!]);
    positions.push(...p.flat());
    normals.push(...n, ...n, ...n);
  }
  return { ...piece, positions, normals, indices: piece.indices.map((_, i) => i) };
}
