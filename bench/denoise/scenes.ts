/**
 * What the denoising bench looks at: parts of the demo pictures, and generated scenes that nobody tuned anything for.
 */
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from '../../src/core/brief/brief';
import { createCameraFrame } from '../../src/core/camera/lens';
import type { FreeViewpoint } from '../../src/core/camera/viewpoint';
import type { Vec3 } from '../../src/core/math/vec3';
import { createRandom } from '../../src/core/sampling/random';
import { LAYERS_DEFAULTS, type Scene, type SceneMaterial } from '../../src/core/scene/scene';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/drawing/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { makeScene, matte, type Piece, quad, sphere, viewFrom } from '../../tests/support/scenes';

export interface BenchScene {
  name: string;
  scene: Scene;
  brief: Brief;
}

/** A demo camera with a longer lens, turned to look `right` and `up` of the middle, in half frames. */
async function part(
  name: string,
  project: number,
  picture: number,
  zoom: number,
  right: number,
  up: number
): Promise<BenchScene> {
  const { model, pictures } = DEMO_PROJECTS[project]!;
  const scene = await readScene(await writeModel(model()));
  const brief = pictures[picture]!.brief;
  const named = scene.cameras.find((c) => 'camera' in brief.viewpoint && c.name === brief.viewpoint.camera)!;
  const view: FreeViewpoint = { ...named, upright: false, sensor_height_mm: 24, f_number: null, focus_m: null };
  const frame = createCameraFrame(view, 1)!;
  const target_m = frame.eye.map(
    (e, k) => e + frame.forward[k]! + right * frame.halfWidth * frame.right[k]! + up * frame.halfHeight * frame.up[k]!
  ) as unknown as [number, number, number];
  return {
    name,
    scene,
    brief: { ...brief, viewpoint: { ...view, target_m, focal_length_mm: view.focal_length_mm * zoom } }
  };
}

/** Things of all materials strewn over a floor, in a room with a window or under the sky. */
function strewn(name: string, seed: number, inside: boolean): BenchScene {
  const random = createRandom(seed);
  const color = (): Vec3 => [0.1 + 0.8 * random(), 0.1 + 0.8 * random(), 0.1 + 0.8 * random()];
  const kinds: (() => Partial<SceneMaterial>)[] = [
    () => matte(color()),
    () => ({ baseColor: [...color(), 1], roughness: 0.2 + 0.6 * random() }),
    () => ({ baseColor: [...color(), 1], metallic: 1, roughness: 0.4 * random() }),
    () => ({ transmission: 1, solid: true, roughness: 0 }),
    () => ({ ...matte(color()), layers: { ...LAYERS_DEFAULTS, coat: 1 } })
  ];
  const pieces: Piece[] = [];
  const tiles = 8;
  for (let i = 0; i < tiles; i++) {
    for (let j = 0; j < tiles; j++) {
      const [x, z] = [-2 + (4 * i) / tiles, -2 + (4 * j) / tiles];
      const s = 4 / tiles;
      pieces.push(quad([x, 0, z + s], [x + s, 0, z + s], [x + s, 0, z], [x, 0, z], matte((i + j) % 2 ? 0.6 : 0.25)));
    }
  }
  for (let k = 0; k < 16; k++) {
    const r = 0.12 + 0.22 * random();
    const at: Vec3 = [-1.6 + 3.2 * random(), r, -1.6 + 3.2 * random()];
    const material = kinds[Math.floor(random() * kinds.length)]!();
    if (random() < 0.7) pieces.push(sphere(at, r, material, false, 24, 48));
    else pieces.push(...block(at, r, material));
  }
  if (inside) {
    const wall = matte([0.7, 0.68, 0.62]);
    pieces.push(
      quad([-2, 0, -2], [2, 0, -2], [2, 2.4, -2], [-2, 2.4, -2], wall),
      quad([-2, 0, 2], [-2, 0, -2], [-2, 2.4, -2], [-2, 2.4, 2], wall),
      quad([-2, 2.4, -2], [2, 2.4, -2], [2, 2.4, 2], [-2, 2.4, 2], wall)
    );
    pieces.push(
      quad([2, 0, -2], [2, 0, 2], [2, 0.8, 2], [2, 0.8, -2], wall),
      sphere([-0.8, 2, -0.6], 0.06, { ...matte(0), emissive: [90_000, 70_000, 45_000], twoSided: false }, false, 12, 24)
    );
  }
  const brief: Brief = {
    ...BRIEF_DEFAULTS,
    viewpoint: viewFrom([0.6, 1.5, 3.4], [0, 0.35, 0], { focal_length_mm: 35 }),
    surroundings: {
      ...SURROUNDINGS_DEFAULTS.sky,
      time: '2026-06-21T16:00:00+02:00',
      north_deg: 40 * seed,
      cloud: inside ? 0 : 0.3
    },
    exposure: { metered: true },
    quality: { ...BRIEF_DEFAULTS.quality, firefly: 4 },
    finish: { ...BRIEF_DEFAULTS.finish, denoise: 1 }
  };
  return { name, scene: makeScene(pieces), brief };
}

function block([x, y, z]: Vec3, r: number, material: Partial<SceneMaterial>): Piece[] {
  const [a, b, c, d, e, f] = [x - r, x + r, y - r, y + r, z - r, z + r];
  return [
    quad([a, c, f], [b, c, f], [b, d, f], [a, d, f], material),
    quad([b, c, e], [a, c, e], [a, d, e], [b, d, e], material),
    quad([a, c, e], [a, c, f], [a, d, f], [a, d, e], material),
    quad([b, c, f], [b, c, e], [b, d, e], [b, d, f], material),
    quad([a, d, f], [b, d, f], [b, d, e], [a, d, e], material),
    quad([a, c, e], [b, c, e], [b, c, f], [a, c, f], material)
  ];
}

/** Px a side of every part. */
export const PART_PX = 128;

/** Parts of small pictures, some 150 to 380 px high: a pixel holds many edges and textures. */
export const enlargedScenes = async (): Promise<BenchScene[]> => [
  await part('hut, eaves and trees', 0, 0, 3, 0.2, -0.1),
  await part('room, shelves and lamps', 1, 0, 2.5, -0.55, 0),
  await part('room, star globe', 1, 1, 1.3, 0, 0),
  await part('lamp, ring and globe', 2, 1, 1.2, 0, 0),
  ...generated()
];

// The least of the demo's pictures that anyone prints or projects is so high.
const SHEET_PX = 1080;

/** Parts one to one, as they lie in pictures of that height. */
export const oneToOneScenes = async (): Promise<BenchScene[]> => [
  await part('hut, eaves', 0, 0, SHEET_PX / PART_PX, -0.1, 0.13),
  await part('hut, grass and steps', 0, 0, SHEET_PX / PART_PX, -0.05, -0.45),
  await part('room, shelves', 1, 0, SHEET_PX / PART_PX, -0.75, 0.1),
  await part('room, table lamps', 1, 0, SHEET_PX / PART_PX, -0.1, -0.1),
  await part('star globe', 1, 1, SHEET_PX / PART_PX, 0, 0.1),
  await part('lamp, ring', 2, 1, SHEET_PX / PART_PX, -0.4, 0.1),
  await part('lamp, globe and socket', 2, 0, SHEET_PX / PART_PX, 0, 0.3),
  ...generated()
];

const generated = () => [strewn('generated, open air', 3, false), strewn('generated, room', 4, true)];
