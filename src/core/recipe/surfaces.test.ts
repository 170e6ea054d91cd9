/** Pictures, materials of single parts, light and labels as they come into a pack, seen in small renders. */
import { describe, expect, it } from 'vitest';
import { dark, even, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { BRIEF_DEFAULTS, type Brief } from '../brief/brief';
import { IDENTITY } from '../math/affine';
import { frameAround, type Vec3 } from '../math/vec3';
import { assignMaterials } from '../scene/assign-materials';
import { NO_CHANGE } from '../scene/change-material';
import { putLabels } from '../scene/labels';
import { createRandom } from '../sampling/random';
import type { Scene, SceneTexture } from '../scene/scene';
import type { SurfaceTexture } from '../scene/surface-pictures';
import { packedRules, packSurfaces } from './surfaces';

/** Red above left, green above right, blue below left, white below right. */
const QUARTERS: SceneTexture = {
  name: 'quarters',
  width: 64,
  height: 64,
  encoded: false,
  pixels: Uint8Array.from({ length: 64 * 64 * 4 }, (_, i) => {
    const [x, y, c] = [(i >> 2) % 64, Math.floor((i >> 2) / 64), i & 3];
    const color = y < 32 ? (x < 32 ? [255, 0, 0] : [0, 255, 0]) : x < 32 ? [0, 0, 255] : [255, 255, 255];
    return c === 3 ? 255 : color[c]!;
  })
};
const TEXTURE: SurfaceTexture = {
  color: 'quarters',
  roughness: null,
  normal: null,
  height: null,
  height_mm: 2,
  opacity: null,
  projection: 'box',
  axis: 'y',
  width_cm: 100,
  repeats: 1,
  turn_deg: 0,
  across_cm: 0,
  up_cm: 0,
  varied: false
};
const rule = (more: Partial<Brief['materials'][number]>): Brief['materials'][number] => ({
  material: '*',
  part: null,
  becomes: null,
  change: null,
  texture: null,
  ...more
});
async function dressed(scene: Scene, materials: Brief['materials'], texture = QUARTERS): Promise<Scene> {
  const { surfaces = [] } = packedRules({ materials });
  const packed = await packSurfaces(scene, surfaces, () => Promise.resolve(texture));
  return assignMaterials(packed, materials);
}

/** A square of a metre about the origin, turned towards `n`, in `distance` m from it. */
function face(n: Vec3, distance = 0.5, material = matte(0.8)) {
  const { tangent: u, bitangent: v } = frameAround(n);
  const at = (a: number, b: number): Vec3 =>
    [0, 1, 2].map((k) => distance * n[k]! + a * u[k]! + b * v[k]!) as unknown as Vec3;
  return quad(at(-0.5, -0.5), at(0.5, -0.5), at(0.5, 0.5), at(-0.5, 0.5), material);
}
const NAMES: [name: string, color: number[]][] = [
  ['red', [1, 0, 0]],
  ['green', [0, 1, 0]],
  ['blue', [0, 0, 1]],
  ['white', [1, 1, 1]]
];
const nameOf = (pixel: readonly number[]): string => {
  const most = Math.max(...pixel);
  return NAMES.find(([, color]) => color.every((c, k) => Math.abs(c - pixel[k]! / most) < 0.45))?.[0] ?? String(pixel);
};
/** The four quarters as they are seen by one who looks at a face of a cube: above left, above right, below left, right. */
function seen(scene: Scene, n: Vec3, up: Vec3): string[] {
  const view = viewFrom([n[0] * 4, n[1] * 4, n[2] * 4], [0, 0, 0], {
    projection: 'parallel',
    height_m: 1,
    up: [...up]
  });
  const { pixels } = renderScene(scene, view, { width: 4, height: 4, samples: 64, light: even(1), bounces: 1 });
  return [0, 3, 12, 15].map((i) => nameOf(pixels[i]!));
}
const UPRIGHT = ['red', 'green', 'blue', 'white'];

describe('a picture on a surface', () => {
  it.each([
    [
      [0, 0, 1],
      [0, 1, 0]
    ],
    [
      [0, 0, -1],
      [0, 1, 0]
    ],
    [
      [1, 0, 0],
      [0, 1, 0]
    ],
    [
      [-1, 0, 0],
      [0, 1, 0]
    ],
    [
      [0, 1, 0],
      [0, 0, -1]
    ],
    [
      [0, -1, 0],
      [0, 0, 1]
    ]
  ] as [Vec3, Vec3][])('is upright, whole and not mirrored on the side %j of a cube', async (n, up) => {
    const scene = await dressed(makeScene([face(n)]), [rule({ texture: TEXTURE })]);
    expect(seen(scene, n, up)).toEqual(UPRIGHT);
  });
  it('is turned counterclockwise, moved and sized in centimetres', async () => {
    const of = async (more: Partial<SurfaceTexture>) =>
      seen(
        await dressed(makeScene([face([0, 0, 1])]), [rule({ texture: { ...TEXTURE, ...more } })]),
        [0, 0, 1],
        [0, 1, 0]
      );
    // what was above right is above left now
    expect(await of({ turn_deg: 90 })).toEqual(['green', 'white', 'red', 'blue']);
    expect(await of({ across_cm: 50 })).toEqual(['green', 'red', 'white', 'blue']);
    expect(await of({ up_cm: 50 })).toEqual(['blue', 'white', 'red', 'green']);
    // of four metres the middle metre shows the inner corners of the quarters
    expect(await of({ width_cm: 400, across_cm: -100, up_cm: 100 })).toEqual(['white', 'white', 'white', 'white']);
  });
  it('does not show its repeats where they are broken up, and is as bright as before', async () => {
    // four by four repeats of a speckle without a large pattern
    const side = 64;
    const random = createRandom(5);
    const speckle: SceneTexture = {
      ...QUARTERS,
      name: 'speckle',
      width: side,
      height: side,
      pixels: new Uint8Array(side * side * 4).fill(255)
    };
    for (let i = 0; i < 260; i++) {
      const [cx, cy, r] = [random() * side, random() * side, 1 + 2 * random()];
      const code = random() < 0.5 ? 60 : 160;
      for (let y = -3; y <= 3; y++)
        for (let x = -3; x <= 3; x++)
          if (Math.hypot(x, y) <= r) {
            const at = ((Math.floor(cy + y + side) % side) * side + (Math.floor(cx + x + side) % side)) * 4;
            speckle.pixels.fill(code, at, at + 3);
          }
    }
    const px = 64;
    const rendered = async (varied: boolean) => {
      const scene = await dressed(
        makeScene([face([0, 0, 1])]),
        [rule({ texture: { ...TEXTURE, width_cm: 25, varied } })],
        speckle
      );
      const view = viewFrom([0, 0, 4], [0, 0, 0], { projection: 'parallel', height_m: 1 });
      const { pixels } = renderScene(scene, view, { width: px, height: px, samples: 64, light: even(1), bounces: 1 });
      return pixels.map(([r]) => r);
    };
    /** Of the picture with itself, one repeat to the right. */
    const likeness = (values: number[]): number => {
      const mean = values.reduce((a, b) => a + b) / values.length;
      let [own, shifted] = [0, 0];
      for (let y = 0; y < px; y++)
        for (let x = 0; x + px / 4 < px; x++) {
          const [a, b] = [values[y * px + x]! - mean, values[y * px + x + px / 4]! - mean];
          own += a * a;
          shifted += a * b;
        }
      return shifted / own;
    };
    const [plain, broken] = [await rendered(false), await rendered(true)];
    expect(likeness(plain)).toBeGreaterThan(0.9);
    expect(Math.abs(likeness(broken))).toBeLessThan(0.15);
    const mean = (values: number[]) => values.reduce((a, b) => a + b) / values.length;
    expect(mean(broken) / mean(plain)).toBeCloseTo(1, 1);
    const spread = (values: number[]) => Math.sqrt(mean(values.map((v) => (v - mean(values)) ** 2)));
    // blending would take the contrast away
    expect(spread(broken) / spread(plain)).toBeGreaterThan(0.85);
  });
  it('goes with a part that stands turned in the world', async () => {
    // its own z is the world's x, its own x the world's -z
    const door = { name: 'door', first: 0, matrix: [0, 0, -1, 0, 1, 0, 1, 0, 0, 0, 0, 0] as never };
    const scene = { ...makeScene([face([1, 0, 0])]), parts: [door] };
    const turned = await dressed(scene, [rule({ texture: { ...TEXTURE, projection: 'planar', axis: 'z' } })]);
    expect(seen(turned, [1, 0, 0], [0, 1, 0])).toEqual(UPRIGHT);
  });
  it('runs around a cylinder from left to right, as long as its circumference', async () => {
    const pieces = Array.from({ length: 64 }, (_, i) => {
      const at = (k: number, y: number): Vec3 => {
        const a = (2 * Math.PI * k) / 64;
        return [0.5 * Math.sin(a), y, 0.5 * Math.cos(a)];
      };
      return quad(at(i, -0.5), at(i + 1, -0.5), at(i + 1, 0.5), at(i, 0.5), matte(0.8));
    });
    const texture = { ...TEXTURE, projection: 'cylinder' as const, width_cm: 100 * Math.PI };
    const scene = await dressed(makeScene(pieces), [rule({ texture })]);
    for (const angle of [0, 90, 180, 270]) {
      const a = (angle * Math.PI) / 180;
      const view = viewFrom([4 * Math.sin(a), 0, 4 * Math.cos(a)], [0, 0, 0], { projection: 'parallel', height_m: 1 });
      const { pixels } = renderScene(scene, view, { width: 16, height: 4, samples: 16, bounces: 1 });
      // once around: the middle of the picture faces z
      const [left, right] = [nameOf(pixels[6]!), nameOf(pixels[9]!)];
      const half = (side: -1 | 1) => (((angle + side * 14 + 540) % 360) - 180 < 0 ? 'red' : 'green');
      expect([angle, left, right]).toEqual([angle, half(-1), half(1)]);
    }
  });
  it('cuts holes where its opacity is black, for light too', async () => {
    const holes = {
      ...QUARTERS,
      pixels: QUARTERS.pixels.map((v, i) => (i % 4 === 3 ? ((i >> 2) % 64 < 32 ? 0 : 255) : v))
    };
    const lattice = { ...TEXTURE, color: null, opacity: 'holes' };
    const board = { ...matte(0.8), name: 'board' };
    const scene = makeScene([face([0, 0, 1], 0.5, board), face([0, 0, 1], 0.1, { ...matte(0.5), name: 'back' })]);
    const cut = await dressed(scene, [rule({ material: 'board', texture: lattice })], holes);
    const view = viewFrom([0, 0, 4], [0, 0, 0], { projection: 'parallel', height_m: 1 });
    const { pixels } = renderScene(cut, view, { width: 4, height: 4, samples: 256 });
    // right stands the board, left one sees what is behind, darker
    expect(pixels[5]![0]).toBeLessThan(0.75 * pixels[6]![0]);
    expect(pixels[5]![0]).toBeGreaterThan(0.1);
  });
  it('of heights is lit from the side that its slope faces, also when it is turned', async () => {
    const slope: SceneTexture = {
      ...QUARTERS,
      // faces +x of the picture by 45 degrees
      pixels: Uint8Array.from({ length: 64 * 64 * 4 }, (_, i) => [217, 128, 217, 255][i & 3]!)
    };
    const sun = [
      {
        kind: 'directional' as const,
        name: 'sun',
        direction: [-Math.SQRT1_2, 0, -Math.SQRT1_2] as Vec3,
        illuminance: [1, 1, 1] as Vec3
      }
    ];
    const lit = async (turn_deg: number) => {
      const wall = makeScene([face([0, 0, 1])], sun);
      const scene = await dressed(
        wall,
        [rule({ texture: { ...TEXTURE, color: null, normal: 'slope', turn_deg } })],
        slope
      );
      const view = viewFrom([0, 0, 4], [0, 0, 0], { projection: 'parallel', height_m: 0.5 });
      return renderScene(scene, view, { light: dark, samples: 4, width: 4, height: 4 }).mean[0];
    };
    const plain = 0.8 / Math.PI / Math.SQRT2;
    const [towards, above, away] = [await lit(0), await lit(90), await lit(180)];
    expect(towards / plain).toBeGreaterThan(1.25);
    // turned to face up, it has half the cosine: 0.707 of the plain wall's
    expect(Math.abs(above / plain - 0.71)).toBeLessThan(0.06);
    expect(away / plain).toBeLessThan(0.15);
  });
});

describe('a material of one part', () => {
  it('is that part’s alone, of an object that stands in three places too', async () => {
    const chair = makeScene([face([0, 0, 1], 0, { ...matte(0.5), name: 'oak' })]);
    const at = (x: number, path: string) => ({
      object: 0,
      name: path,
      path,
      matrix: [1, 0, 0, 0, 1, 0, 0, 0, 1, x, 0, 0] as never
    });
    const scene: Scene = {
      ...chair,
      geometry: makeScene([]).geometry,
      objects: [chair.geometry],
      instances: [at(-1, 'Row / Chair'), at(0, 'Row / Chair (2)'), at(1, 'Row / Chair (3)')]
    };
    const colors = (scene: Scene) => {
      const view = viewFrom([0, 0, 4], [0, 0, 0], { projection: 'parallel', height_m: 1 });
      const { pixels } = renderScene(scene, view, { width: 15, height: 5, samples: 64, bounces: 1 });
      return [32, 37, 42].map((i) => pixels[i]!).map((p) => Math.round(p[0] * 100) / 100);
    };
    const one = await dressed(scene, [
      rule({ material: 'Oak', part: 'Row / Chair (2)', becomes: 'plastic-black-matte' })
    ]);
    const [left, middle, right] = colors(one) as [number, number, number];
    expect(Math.abs(left - right)).toBeLessThan(0.03);
    expect(middle).toBeLessThan(0.4 * left);
    // a rule for the whole row holds for the others, when it comes behind
    const row = await dressed(scene, [
      rule({ material: 'Oak', part: 'Row / Chair (2)', becomes: 'plastic-black-matte' }),
      rule({ material: 'Oak', part: 'Row', becomes: 'paint-white' })
    ]);
    expect(colors(row)[0]).toBeGreaterThan(1.3 * left);
    expect(colors(row)[1]).toBeLessThan(0.4 * left);
  });
});

describe('a material that is made to glow', () => {
  it('lights what is beside it, also where its object is kept once', async () => {
    const panel = makeScene([face([0, -1, 0], -1, { ...matte(0.5), name: 'panel' })]);
    const floor = makeScene([face([0, 1, 0], -0.5, { ...matte(0.5), name: 'floor' })]);
    const scene: Scene = {
      ...floor,
      materials: [...floor.materials, { ...panel.materials[0]!, twoSided: false }],
      objects: [{ ...panel.geometry, triangleMaterials: panel.geometry.triangleMaterials.map(() => 1) }],
      instances: [{ object: 0, name: 'panel', matrix: IDENTITY }]
    };
    const glows = await dressed(scene, [rule({ material: 'panel', change: { ...NO_CHANGE, glow_nits: 100 } })]);
    expect(glows.instances).toHaveLength(0);
    const view = viewFrom([0, 0.4, 0], [0, -1, 0], { projection: 'parallel', height_m: 0.05 });
    const { mean } = renderScene(glows, view, { light: dark, samples: 256, width: 4, height: 4, bounces: 1 });
    // form factor of a square of 1 m over its middle in 1.5 m: Howell, A Catalog of Radiation Heat Transfer, B-4
    const x = 0.5 / 1.5;
    const root = Math.sqrt(1 + x * x);
    const factor = (4 / Math.PI) * (x / root) * Math.atan(x / root);
    expect(Math.abs(mean[0] / (0.5 * 100 * factor) - 1)).toBeLessThan(0.02);
  });
});

describe('a label', () => {
  const label = (more: Partial<Brief['labels'][number]> = {}) => ({
    name: 'Badge',
    file: 'quarters',
    position_m: [0, 0, 0.5] as [number, number, number],
    normal: [0, 0, 1] as [number, number, number],
    width_cm: 50,
    turn_deg: 0,
    shine: 0,
    shown: true,
    ...more
  });
  const pictures = new Map([['quarters', QUARTERS]]);
  const view = viewFrom([0, 0, 4], [0, 0, 0], { projection: 'parallel', height_m: 1 });
  const looks = (scene: Scene) => {
    const { pixels } = renderScene(scene, view, { width: 8, height: 8, samples: 64, bounces: 1 });
    return (x: number, y: number) => pixels[y * 8 + x]!;
  };
  it('lies on its face as wide as it says, upright, and nowhere else', () => {
    const at = looks(putLabels(makeScene([face([0, 0, 1], 0.5, matte(0.1))]), [label()], pictures));
    expect([at(3, 3), at(4, 3), at(3, 4), at(4, 4)].map(nameOf)).toEqual(UPRIGHT);
    expect([at(2, 2), at(5, 2), at(2, 5), at(5, 5)].map(nameOf)).toEqual(UPRIGHT);
    for (const [x, y] of [
      [1, 4],
      [6, 4],
      [4, 1],
      [4, 6]
    ] as const)
      expect(at(x, y)[0]).toBeLessThan(0.25);
  });
  it('is turned, belongs to the part that it lies on, and leaves the back alone', () => {
    const scene = {
      ...makeScene([face([0, 0, 1], 0.5, matte(0.1)), face([0, 0, -1], -0.45, matte(0.1))]),
      parts: [{ name: 'Box', path: 'Case / Box', first: 0, matrix: IDENTITY }]
    };
    const put = putLabels(scene, [label({ turn_deg: 90 })], pictures);
    const at = looks(put);
    expect([at(3, 3), at(4, 3), at(3, 4), at(4, 4)].map(nameOf)).toEqual(['green', 'white', 'red', 'blue']);
    expect(put.parts.at(-1)).toMatchObject({ path: 'Case / Box / Badge' });
    const added = put.geometry.positions.slice(scene.geometry.positions.length);
    for (let k = 2; k < added.length; k += 3) expect(added[k]).toBeGreaterThan(0.5);
  });
  it('goes round a curved face, and shows what is under its clear parts', () => {
    const strips = Array.from({ length: 32 }, (_, i) => {
      const at = (k: number, y: number): Vec3 => {
        const a = -Math.PI / 2 + (Math.PI * k) / 32;
        return [0.5 * Math.sin(a), y, 0.5 * Math.cos(a)];
      };
      return quad(at(i, -0.5), at(i + 1, -0.5), at(i + 1, 0.5), at(i, 0.5), matte(0.1));
    });
    const clear = {
      ...QUARTERS,
      pixels: QUARTERS.pixels.map((v, i) => (i % 4 === 3 ? ((i >> 2) % 64 < 32 ? 0 : 255) : v))
    };
    const at = looks(putLabels(makeScene(strips), [label({ width_cm: 70 })], new Map([['quarters', clear]])));
    expect(at(3, 3)[0]).toBeLessThan(0.25);
    expect([at(4, 3), at(6, 3), at(4, 4)].map(nameOf)).toEqual(['green', 'green', 'white']);
  });
  it('over nothing is none, and one without its picture is told by name', () => {
    const scene = makeScene([face([0, 0, 1], 0.5, matte(0.1))]);
    const off = putLabels(scene, [label({ position_m: [9, 0, 0] })], pictures);
    expect(off.geometry.triangleMaterials.length).toBe(2);
    expect(() => putLabels(scene, [label({ file: 'gone' })], pictures)).toThrow(/the picture of "Badge" is not here/);
    expect(putLabels(scene, [label({ shown: false })], new Map())).toBe(scene);
  });
});

describe('what decides a pack', () => {
  it('is nothing of materials that the rig alone has, nor how a picture lies', () => {
    const plain = [rule({ becomes: 'oak-oiled', change: { ...NO_CHANGE, shine: 0.3 } })];
    expect(packedRules({ materials: plain })).toEqual({});
    const textured = (more: Partial<SurfaceTexture>) =>
      packedRules({ ...BRIEF_DEFAULTS, materials: [rule({ texture: { ...TEXTURE, ...more } })] });
    expect(textured({ width_cm: 30, turn_deg: 45, across_cm: 3 })).toEqual(textured({}));
    expect(textured({ projection: 'cylinder' })).not.toEqual(textured({}));
    expect(textured({ normal: 'n', turn_deg: 45 })).not.toEqual(textured({ normal: 'n' }));
  });
});
