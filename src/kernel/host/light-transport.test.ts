import { describe, expect, it } from 'vitest';
import {
  dark,
  even,
  glowing,
  kernelModule,
  makeScene,
  matte,
  quad,
  renderScene,
  sphere,
  viewFrom
} from '../../../tests/support/scenes';
import { LAYERS_DEFAULTS } from '../../core/scene/scene';
import { intersect } from '../../core/integrator/reference';
import { normalize, type Vec3 } from '../../core/math/vec3';
import { createRandom } from '../../core/sampling/random';
import { openScene } from './kernel';
import { compileScene } from './rig';

const unitFloor = (material = matte(1), y = 0) =>
  quad([-0.5, y, 0.5], [0.5, y, 0.5], [0.5, y, -0.5], [-0.5, y, -0.5], material);
// wider than the square that is looked at, because the pixel filter sees a little beyond its edge
const wideFloor = quad([-0.6, 0, 0.6], [0.6, 0, 0.6], [0.6, 0, -0.6], [-0.6, 0, -0.6], matte(1));
/** A parallel view straight down on a square of side `size` about (x, z). */
const fromAbove = (x: number, y: number, z: number, size: number) =>
  viewFrom([x, y + 0.2, z], [x, y, z], { projection: 'parallel', height_m: size });

describe('closed diffuse sphere (integrating-sphere theory)', () => {
  // emission L, reflectance r: with n bounces the radiance is L (1 + r + ... + r^n), without end L / (1 - r)
  for (const [bounces, reflectance] of [
    [0, 0.5],
    [1, 0.5],
    [3, 0.7],
    [60, 0.8]
  ] as const) {
    it(`gives the partial sum for ${bounces} bounces at reflectance ${reflectance}`, () => {
      const scene = makeScene([sphere([0, 0, 0], 1, { ...glowing(1, reflectance), twoSided: true }, true)]);
      const { mean } = renderScene(scene, viewFrom([0, 0, 0], [0, 0.2, 1], { focal_length_mm: 12 }), {
        bounces,
        samples: 1024,
        light: dark
      });
      const expected = (1 - reflectance ** (bounces + 1)) / (1 - reflectance);
      expect(mean[0] / expected).toBeGreaterThan(0.99);
      expect(mean[0] / expected).toBeLessThan(1.01);
    });
  }
});

describe('limits by kind', () => {
  // a mirror over a matte floor that glows: each kind is cut by itself
  const glowingSphere = (more: object) =>
    makeScene([sphere([0, 0, 0], 1, { ...glowing(1, 0.5), twoSided: true, ...more }, true)]);
  const look = (scene: ReturnType<typeof makeScene>, limits: object) =>
    renderScene(scene, viewFrom([0, 0, 0], [0, 0.2, 1], { focal_length_mm: 12 }), {
      bounces: 40,
      samples: 1024,
      light: dark,
      limits
    }).mean[0];
  it('diffuse 1 leaves two scatterings in a matte sphere; gloss does not count there', () => {
    expect(look(glowingSphere({}), { diffuse_bounces: 1 })).toBeCloseTo(1 + 0.5 + 0.25, 1);
    expect(look(glowingSphere({}), { diffuse_bounces: 0 })).toBeCloseTo(1.5, 1);
    expect(look(glowingSphere({}), { specular_bounces: 0, transmission_bounces: 0 })).toBeCloseTo(2, 1);
  });
  it('gloss 1 leaves two mirrorings in a metal sphere', () => {
    const metal = {
      metallic: 1,
      roughness: 0.2,
      baseColor: [0.5, 0.5, 0.5, 1] as [number, number, number, number],
      specular: 1
    };
    const free = look(glowingSphere(metal), {});
    const cut = look(glowingSphere(metal), { specular_bounces: 1 });
    expect(look(glowingSphere(metal), { diffuse_bounces: 0 })).toBeCloseTo(free, 2);
    expect(cut).toBeLessThan(free - 0.1);
    expect(cut).toBeGreaterThan(1.7);
  });
  it('glow off: what glows is seen, in a mirror too, and lights nothing', () => {
    const floor = quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(1));
    const lamp = quad([-1, 1, -1], [1, 1, -1], [1, 1, 1], [-1, 1, 1], { ...glowing(7), twoSided: true });
    const scene = makeScene([floor, lamp]);
    expect(
      renderScene(scene, viewFrom([0, 0.5, 0], [0, 0, 0], { focal_length_mm: 35 }), {
        light: dark,
        limits: { emissive_lights: false }
      }).mean[0]
    ).toBe(0);
    expect(
      renderScene(scene, viewFrom([0, 3, 0], [0, 1, 0], { focal_length_mm: 35 }), {
        light: dark,
        limits: { emissive_lights: false }
      }).mean[0]
    ).toBeCloseTo(7, 4);
  });
});

describe('furnace: what neither absorbs nor glows is invisible in even surroundings (energy conservation)', () => {
  const inFurnace = (material: object) =>
    renderScene(
      makeScene([sphere([0, 0, 0], 1, material, false, 96, 192)]),
      viewFrom([0, 0, 6], [0, 0, 0], { focal_length_mm: 90 }),
      { samples: 512, bounces: 64 }
    ).mean[0];
  for (const roughness of [0, 0.1, 0.35, 0.6, 1]) {
    it(`white metal of roughness ${roughness}`, () => {
      expect(Math.abs(inFurnace({ metallic: 1, roughness, specular: 1 }) - 1)).toBeLessThan(
        roughness < 0.05 ? 0.005 : 0.01
      );
    });
    it(`clear solid glass of roughness ${roughness}`, () => {
      expect(Math.abs(inFurnace({ transmission: 1, solid: true, roughness }) - 1)).toBeLessThan(
        roughness < 0.05 ? 0.005 : 0.012
      );
    });
    it(`clear thin glass of roughness ${roughness}`, () => {
      expect(Math.abs(inFurnace({ transmission: 1, solid: false, roughness }) - 1)).toBeLessThan(
        roughness < 0.05 ? 0.005 : 0.016
      );
    });
    it(`a white dielectric of roughness ${roughness} loses a little and never gains`, () => {
      const value = inFurnace({ roughness });
      expect(value).toBeLessThanOrEqual(1.002);
      expect(value).toBeGreaterThan(0.85);
    });
  }
  for (const [name, material] of [
    ['brushed metal', { metallic: 1, roughness: 0.4, layers: { ...LAYERS_DEFAULTS, anisotropy: 0.8 } }],
    [
      'a metal under a film',
      {
        metallic: 1,
        roughness: 0.3,
        layers: { ...LAYERS_DEFAULTS, iridescence: 1, filmThickness: [300, 300] as [number, number] }
      }
    ],
    ['a coat over rough white', { roughness: 0.8, layers: { ...LAYERS_DEFAULTS, coat: 1, coatRoughness: 0.1 } }],
    [
      'white velvet',
      { ...matte(1), layers: { ...LAYERS_DEFAULTS, sheenColor: [1, 1, 1] as const, sheenRoughness: 0.5 } }
    ]
  ] as const)
    it(`${name} loses a little and never gains`, () => {
      const value = inFurnace(material);
      // what a brushed surface loses is taken from the table of an equally rough one that is not brushed
      expect(value).toBeLessThanOrEqual(name === 'brushed metal' ? 1.01 : 1.004);
      expect(value).toBeGreaterThan(0.8);
    });
  it.each([
    [0.05, 88],
    [0.1, 88],
    [0.1, 89],
    [0.1, 89.5],
    [0.115, 89],
    [0.14, 89],
    [0.2, 89],
    [0.3, 89],
    [0.6, 88]
  ])('white sheen of roughness %f over white, seen %f degrees from its normal, never gains', (roughness, degrees) => {
    const t = (degrees * Math.PI) / 180;
    const sheenWhite = {
      ...matte(1),
      layers: { ...LAYERS_DEFAULTS, sheenColor: [1, 1, 1] as const, sheenRoughness: roughness }
    };
    const scene = makeScene([quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], sheenWhite)]);
    const { mean } = renderScene(
      scene,
      viewFrom([6 * Math.sin(t), 6 * Math.cos(t), 0], [0, 0, 0], { focal_length_mm: 2000 }),
      {
        width: 8,
        height: 8,
        samples: 2048,
        bounces: 8
      }
    );
    expect(mean[0]).toBeLessThanOrEqual(1.004);
    expect(mean[0]).toBeGreaterThan(0.6);
  });
  it.each([0.3, 0.35, 0.355, 0.36, 0.38, 0.4, 0.42, 0.45])(
    'white metal of roughness %f seen straight on neither takes nor gives 0.3 %%',
    (roughness) => {
      const plate = quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], { metallic: 1, roughness, specular: 1 });
      const { mean } = renderScene(makeScene([plate]), viewFrom([0, 6, 0.001], [0, 0, 0], { focal_length_mm: 400 }), {
        width: 24,
        height: 24,
        samples: 1024,
        bounces: 4
      });
      expect(Math.abs(mean[0] - 1)).toBeLessThan(0.003);
    }
  );
  it('a sheet that scatters to both sides, and dispersing glass: neither takes nor gives', () => {
    expect(
      Math.abs(inFurnace({ ...matte(1), layers: { ...LAYERS_DEFAULTS, diffuseTransmission: 0.6 } }) - 1)
    ).toBeLessThan(0.006);
    const { mean } = renderScene(
      makeScene([
        sphere(
          [0, 0, 0],
          1,
          { transmission: 1, solid: true, roughness: 0, layers: { ...LAYERS_DEFAULTS, dispersion: 5 } },
          false,
          96,
          192
        )
      ]),
      viewFrom([0, 0, 6], [0, 0, 0], { focal_length_mm: 90 }),
      { samples: 2048, bounces: 64 }
    );
    for (const c of mean) expect(Math.abs(c - 1)).toBeLessThan(0.01);
  });
  it('a white Lambertian', () => expect(Math.abs(inFurnace(matte(1)) - 1)).toBeLessThan(0.005));
});

describe('form factors (Howell, A Catalog of Radiation Heat Transfer Configuration Factors)', () => {
  it('two unit squares facing at distance 1: 0.19982 (C-11)', () => {
    const scene = makeScene([
      wideFloor,
      quad([-0.5, 1, -0.5], [0.5, 1, -0.5], [0.5, 1, 0.5], [-0.5, 1, 0.5], glowing(1))
    ]);
    const { mean } = renderScene(scene, fromAbove(0, 0, 0, 1), {
      width: 48,
      height: 48,
      samples: 1024,
      bounces: 1,
      light: dark
    });
    expect(Math.abs(mean[0] / 0.19982 - 1)).toBeLessThan(0.005);
  });
  it('two unit squares sharing an edge at right angles: 0.20004 (C-14)', () => {
    const scene = makeScene([
      wideFloor,
      quad([-0.5, 0, -0.5], [0.5, 0, -0.5], [0.5, 1, -0.5], [-0.5, 1, -0.5], glowing(1))
    ]);
    const { mean } = renderScene(scene, fromAbove(0, 0, 0, 1), {
      width: 48,
      height: 48,
      samples: 1024,
      bounces: 1,
      light: dark
    });
    expect(Math.abs(mean[0] / 0.20004 - 1)).toBeLessThan(0.01);
  });
});

describe('light on a surface (Lambert 1760; inverse square and cosine, IES Lighting Handbook)', () => {
  it('below a uniform disc: E = pi L sin^2(half angle)', () => {
    const disc = { positions: [0, 1, 0], indices: [] as number[], material: glowing(3) };
    for (let i = 0; i <= 128; i++)
      disc.positions.push(0.5 * Math.cos((2 * Math.PI * i) / 128), 1, 0.5 * Math.sin((2 * Math.PI * i) / 128));
    for (let i = 1; i <= 128; i++) disc.indices.push(0, i, i + 1);
    const scene = makeScene([
      quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(1)),
      { ...disc, normals: disc.positions.map((_, i) => (i % 3 === 1 ? -1 : 0)) }
    ]);
    const { mean } = renderScene(scene, fromAbove(0, 0, 0, 0.002), { samples: 2048, bounces: 1, light: dark });
    // radiance of a white Lambertian = E / pi
    expect(Math.abs(mean[0] / (3 * 0.2) - 1)).toBeLessThan(0.006);
  });
  it('below a point of I cd at distance d: E = I cos / d^2', () => {
    const scene = makeScene(
      [quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(0.5))],
      [{ kind: 'point', name: '', position: [1, 2, 0], intensity: [100, 50, 25] }]
    );
    const { mean } = renderScene(scene, fromAbove(0, 0, 0, 0.002), { samples: 16, bounces: 1, light: dark });
    const lux = (100 / 5) * (2 / Math.sqrt(5));
    expect(mean[0]).toBeCloseTo((0.5 * lux) / Math.PI, 4);
    expect(mean[0] / mean[2]).toBeCloseTo(4, 4);
  });
  it('a spot keeps its intensity within its inner cone and gives nothing outside', () => {
    const scene = makeScene(
      [quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(1))],
      [
        {
          kind: 'spot',
          name: '',
          position: [0, 2, 0],
          direction: [0, -1, 0],
          intensity: [40, 40, 40],
          innerAngle: 0.3,
          outerAngle: 0.5
        }
      ]
    );
    expect(renderScene(scene, fromAbove(0, 0, 0, 0.01), { samples: 16, bounces: 1, light: dark }).mean[0]).toBeCloseTo(
      10 / Math.PI,
      3
    );
    expect(renderScene(scene, fromAbove(1.3, 0, 0, 0.01), { samples: 16, bounces: 1, light: dark }).mean[0]).toBe(0);
  });
  it('the sun disc gives its illuminance whether it is sampled or met', () => {
    const light = {
      even: null,
      image: null,
      sun: { direction: [0, 0.8, 0.6] as Vec3, radiance: [1e4, 1e4, 1e4] as Vec3, oneMinusCos: 1e-3 }
    };
    const scene = makeScene([quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(1))]);
    const { mean } = renderScene(scene, fromAbove(0, 0, 0, 0.01), { samples: 512, bounces: 1, light });
    expect(Math.abs(mean[0] / ((1e4 * 2 * Math.PI * 1e-3 * 0.8) / Math.PI) - 1)).toBeLessThan(0.01);
  });
});

describe('surroundings', () => {
  it('even radiance 1 gives 1 where nothing stands before it, all of it unscattered', () => {
    const { pixels, shares } = renderScene(makeScene([]), viewFrom([0, 0, 5], [0, 0, 0]), { samples: 16 });
    for (const p of pixels) expect(p).toEqual([1, 1, 1]);
    expect(new Set(shares)).toEqual(new Set([1]));
  });
  it('a coloured slab at ior 1 lets exp(-sigma d) through (Beer-Lambert)', () => {
    // colour 0.5 after 1 m: a slab of 2 m lets a quarter through
    const material = {
      transmission: 1,
      solid: true,
      roughness: 0,
      ior: 1,
      attenuationColor: [0.5, 0.5, 0.5] as Vec3,
      attenuationDistance: 1,
      twoSided: false
    };
    const slab = makeScene([
      quad([-9, -9, 1], [9, -9, 1], [9, 9, 1], [-9, 9, 1], material),
      quad([9, -9, -1], [-9, -9, -1], [-9, 9, -1], [9, 9, -1], material)
    ]);
    const { mean } = renderScene(slab, viewFrom([0, 0, 3], [0, 0, 0], { projection: 'parallel', height_m: 0.1 }), {
      samples: 16
    });
    expect(mean[0]).toBeCloseTo(0.25, 4);
  });
  it('alpha of 0.3 covers 30 %, in the picture and in the shadow', () => {
    const sheet = quad([-9, 1, 9], [9, 1, 9], [9, 1, -9], [-9, 1, -9], {
      ...matte(0),
      baseColor: [0, 0, 0, 0.3],
      alphaMode: 'blend'
    });
    const { mean } = renderScene(makeScene([sheet]), viewFrom([0, 3, 0], [0, 0, 0]), { samples: 1024 });
    expect(mean[0]).toBeCloseTo(0.7, 2);
    const lit = makeScene(
      [sheet, unitFloor(matte(1))],
      [{ kind: 'directional', name: '', direction: [0, -1, 0], illuminance: [Math.PI, Math.PI, Math.PI] }]
    );
    expect(renderScene(lit, fromAbove(0, 0, 0, 0.1), { samples: 16, bounces: 1, light: dark }).mean[0]).toBeCloseTo(
      0.7,
      5
    );
  });
  it('a thin clear pane dims sunlight by Fresnel and not more (both strategies weigh alike)', () => {
    const pane = quad([-90, 1, 90], [90, 1, 90], [90, 1, -90], [-90, 1, -90], { transmission: 1, roughness: 0 });
    const light = {
      even: null,
      image: null,
      sun: { direction: [0, 1, 0] as Vec3, radiance: [1e4, 1e4, 1e4] as Vec3, oneMinusCos: 1e-3 }
    };
    const { mean } = renderScene(makeScene([pane, unitFloor(matte(1))]), fromAbove(0, 0, 0, 0.1), {
      samples: 1024,
      bounces: 1,
      light
    });
    expect(Math.abs(mean[0] / (1e4 * 2e-3 * 0.96) - 1)).toBeLessThan(0.01);
  });
});

describe('geometry', () => {
  for (const indoors of [false, true])
    it(`the same through a clear pane in a dark room, its portals ${indoors ? 'sampled' : 'not sampled'}`, () => {
      const wall = matte(0);
      const pane = quad([-0.5, 0, -0.5], [0.5, 0, -0.5], [0.5, 1, -0.5], [-0.5, 1, -0.5], {
        transmission: 1,
        ior: 1,
        roughness: 0
      });
      const room = [
        quad([-3, 0, -0.5], [-0.5, 0, -0.5], [-0.5, 1, -0.5], [-3, 1, -0.5], wall),
        quad([0.5, 0, -0.5], [3, 0, -0.5], [3, 1, -0.5], [0.5, 1, -0.5], wall),
        quad([-3, 1, -0.5], [3, 1, -0.5], [3, 3, -0.5], [-3, 3, -0.5], wall),
        quad([-3, 0, 3], [-3, 3, 3], [3, 3, 3], [3, 0, 3], wall),
        quad([-3, 0, -0.5], [-3, 3, -0.5], [-3, 3, 3], [-3, 0, 3], wall),
        quad([3, 0, -0.5], [3, 0, 3], [3, 3, 3], [3, 3, -0.5], wall),
        quad([-3, 3, -0.5], [3, 3, -0.5], [3, 3, 3], [-3, 3, 3], wall)
      ];
      const { mean } = renderScene(makeScene([wideFloor, pane, ...room]), fromAbove(0, 0, 0, 1), {
        width: 48,
        height: 48,
        samples: 1024,
        bounces: 1,
        light: even(1),
        indoors
      });
      expect(Math.abs(mean[0] / 0.20004 - 1)).toBeLessThan(0.01);
    });
  it('a coarse mesh with smooth normals has no facets at its terminator', () => {
    // half a facet round, so that one facet lies along the terminator: half of it should be lit
    const turn = Math.PI / 16;
    const sun = {
      kind: 'directional' as const,
      name: '',
      direction: [-Math.cos(turn), 0, -Math.sin(turn)] as Vec3,
      illuminance: [Math.PI, Math.PI, Math.PI] as Vec3
    };
    const [width, height] = [64, 64];
    const { pixels } = renderScene(
      makeScene([sphere([0, 0, 0], 1, matte(1), false, 8, 16)], [sun]),
      viewFrom([0, 0, 3], [0, 0, 0], { projection: 'parallel', height_m: 2 }),
      { width, height, samples: 64, bounces: 1, light: dark }
    );
    let judged = 0;
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const [nx, ny] = [((x + 0.5) / width) * 2 - 1, 1 - ((y + 0.5) / height) * 2];
        if (Math.hypot(nx, ny) > 0.85) continue;
        // Lambert: radiance is the cosine
        const cosine = nx * Math.cos(turn) + Math.sqrt(1 - nx * nx - ny * ny) * Math.sin(turn);
        if (cosine < 0.06) continue;
        judged++;
        expect(pixels[y * width + x]![0]).toBeGreaterThan(0.55 * cosine);
        expect(pixels[y * width + x]![0]).toBeLessThan(1.35 * cosine + 0.05);
      }
    }
    expect(judged).toBeGreaterThan(800);
  });
  it('a coarse mesh with smooth normals gets as much from a glowing square as a fine one', () => {
    const lamp = quad([-1, 2, -1], [1, 2, -1], [1, 2, 1], [-1, 2, 1], glowing(5));
    const of = (rings: number) =>
      renderScene(
        makeScene([sphere([0, 0, 0], 1, matte(1), false, rings, 2 * rings), lamp]),
        viewFrom([0, 3, 4], [0, 0.6, 0], { projection: 'parallel', height_m: 0.8 }),
        { width: 24, height: 24, samples: 256, bounces: 1, light: dark }
      ).mean[0];
    expect(Math.abs(of(10) / of(96) - 1)).toBeLessThan(0.03);
  });
  it('a sealed box lets nothing in', () => {
    const box = sphere([0, 0, 0], 1, matte(0.9), true, 12, 24);
    const { mean } = renderScene(makeScene([box]), viewFrom([0.1, 0.05, 0], [0, 0.3, 1], { focal_length_mm: 12 }), {
      samples: 512,
      bounces: 40,
      light: even(1e6)
    });
    expect(mean[0]).toBe(0);
  });
  it('finds the hits that brute force finds, and blocks the shadow rays it blocks', () => {
    const random = createRandom(3);
    const pieces = Array.from({ length: 200 }, () => {
      const at = [random() * 4 - 2, random() * 4 - 2, random() * 4 - 2] as const;
      const p = () => at.map((v) => v + random() - 0.5);
      return { positions: [...p(), ...p(), ...p()], indices: [0, 1, 2], material: matte(0.5) };
    });
    const scene = makeScene(pieces);
    const n = 2000;
    const { kernel, memory, at } = openScene(compileScene(scene, kernelModule), kernelModule, n * 44);
    const f32 = new Float32Array(memory.buffer);
    const rays = Array.from({ length: n }, () => ({
      from: [random() * 6 - 3, random() * 6 - 3, random() * 6 - 3] as Vec3,
      way: normalize([random() - 0.5, random() - 0.5, random() - 0.5])
    }));
    for (const [i, r] of rays.entries()) f32.set([...r.from, 0, ...r.way, Number.POSITIVE_INFINITY], (at >> 2) + i * 8);
    const out = at + n * 32;
    kernel.intersectMany(at, n, out);
    const hits = rays.map((_, i) => f32[(out >> 2) + i * 2]!);
    kernel.occludedMany(at, n, out);
    let met = 0;
    rays.forEach((r, i) => {
      const hit = intersect(
        scene,
        r.from.map(Math.fround) as unknown as Vec3,
        r.way.map(Math.fround) as unknown as Vec3
      );
      expect(hits[i]! > 0).toBe(hit !== null);
      expect(f32[(out >> 2) + i]! > 0).toBe(hit !== null);
      if (!hit) return;
      met++;
      expect(Math.abs(hits[i]! - hit.t)).toBeLessThan(1e-4);
    });
    expect(met).toBeGreaterThan(200);
  });
});
