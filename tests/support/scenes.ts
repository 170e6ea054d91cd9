/** Small scenes for checks of the kernel, and the shortest way from a scene to mean radiances. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { createCameraFrame } from '../../src/core/camera/lens';
import type { FreeViewpoint } from '../../src/core/camera/viewpoint';
import { AOV_LAYERS, CHANNELS, tileFloats } from '../../src/core/film/film';
import type { SurroundingsLight } from '../../src/core/lights/surroundings-light';
import { dot, type Vec3 } from '../../src/core/math/vec3';
import type { LitScene } from '../../src/core/scene/lit-scene';
import {
  boundsOf,
  MATERIAL_DEFAULTS,
  NO_INSTANCES,
  type Scene,
  type SceneLight,
  type SceneMaterial
} from '../../src/core/scene/scene';
import { squaredGrain } from '../../src/core/quality/grain';
import { centreFor, recentreCamera, recentreScene } from '../../src/core/scene/recentre';
import { instantiate } from '../../src/kernel/host/kernel';
import { compileScene } from '../../src/kernel/host/rig';
import { type GroundSettings, layOut, NO_LIMITS, type PathLimits } from '../../src/kernel/host/settings';

export const root = process.cwd();
export const kernelModule = new WebAssembly.Module(readFileSync(join(root, 'build/kernel.wasm')));

/** A pure Lambertian. */
export const matte = (reflectance: number | Vec3): Partial<SceneMaterial> => ({
  baseColor: typeof reflectance === 'number' ? [reflectance, reflectance, reflectance, 1] : [...reflectance, 1],
  specular: 0
});
export const glowing = (radiance: number, reflectance = 0): Partial<SceneMaterial> => ({
  ...matte(reflectance),
  emissive: [radiance, radiance, radiance],
  twoSided: false
});

export interface Piece {
  positions: number[];
  normals?: number[];
  indices: number[];
  material: Partial<SceneMaterial>;
}

/** Corners counterclockwise as seen from the front. */
export const quad = (a: Vec3, b: Vec3, c: Vec3, d: Vec3, material: Partial<SceneMaterial>): Piece => ({
  positions: [...a, ...b, ...c, ...d],
  indices: [0, 1, 2, 0, 2, 3],
  material
});

export function sphere(
  at: Vec3,
  radius: number,
  material: Partial<SceneMaterial>,
  inward = false,
  rings = 48,
  segments = 96
): Piece {
  const piece: Piece = { positions: [], normals: [], indices: [], material };
  const sign = inward ? -1 : 1;
  for (let j = 0; j <= rings; j++) {
    for (let i = 0; i <= segments; i++) {
      const t = (Math.PI * j) / rings;
      const p = (2 * Math.PI * i) / segments;
      const n = [Math.sin(t) * Math.cos(p), Math.cos(t), Math.sin(t) * Math.sin(p)];
      piece.positions.push(...n.map((v, k) => at[k]! + v * radius));
      piece.normals!.push(...n.map((v) => v * sign));
    }
  }
  const row = segments + 1;
  for (let j = 0; j < rings; j++) {
    for (let i = 0; i < segments; i++) {
      const a = j * row + i;
      const triangles = [
        ...(j > 0 ? [a, a + 1, a + row + 1] : []),
        ...(j < rings - 1 ? [a, a + row + 1, a + row] : [])
      ];
      for (let k = 0; k < triangles.length; k += 3)
        piece.indices.push(triangles[k]!, triangles[k + (inward ? 2 : 1)]!, triangles[k + (inward ? 1 : 2)]!);
    }
  }
  return piece;
}

/** The unit square in the plane y = 0, front up, of 2 n2 triangles. */
export function grid(n: number, material: Partial<SceneMaterial>): Piece {
  const piece: Piece = { positions: [], normals: [], indices: [], material };
  for (let j = 0; j <= n; j++) {
    for (let i = 0; i <= n; i++) {
      piece.positions.push(i / n, 0, j / n);
      piece.normals!.push(0, 1, 0);
      const a = j * (n + 1) + i;
      if (i < n && j < n) piece.indices.push(a, a + n + 1, a + 1, a + 1, a + n + 1, a + n + 2);
    }
  }
  return piece;
}

export function makeScene(pieces: Piece[], lights: SceneLight[] = []): Scene {
  const positions = pieces.flatMap((p) => p.positions);
  const normals = pieces.flatMap((p) => {
    if (p.normals) return p.normals;
    const [ax, ay, az, bx, by, bz, , , , dx, dy, dz] = p.positions as number[];
    const e = [bx! - ax!, by! - ay!, bz! - az!];
    const f =
      p.positions.length === 12
        ? [dx! - ax!, dy! - ay!, dz! - az!]
        : [p.positions[6]! - ax!, p.positions[7]! - ay!, p.positions[8]! - az!];
    const n = [e[1]! * f[2]! - e[2]! * f[1]!, e[2]! * f[0]! - e[0]! * f[2]!, e[0]! * f[1]! - e[1]! * f[0]!];
    const size = Math.hypot(...n);
    return Array.from({ length: p.positions.length / 3 }, () => n.map((v) => v / size)).flat();
  });
  let first = 0;
  const indices = pieces.flatMap((p) => {
    const shifted = p.indices.map((i) => i + first);
    first += p.positions.length / 3;
    return shifted;
  });
  const n = positions.length / 3;
  const geometry = {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    tangents: new Float32Array(n * 4),
    uv0: new Float32Array(n * 2),
    uv1: new Float32Array(n * 2),
    colors: new Uint16Array(n * 4).fill(65_535),
    indices: Uint32Array.from(indices),
    triangleMaterials: Uint32Array.from(pieces.flatMap((p, m) => Array.from({ length: p.indices.length / 3 }, () => m)))
  };
  return {
    ...NO_INSTANCES,
    geometry,
    materials: pieces.map((p) => ({ ...MATERIAL_DEFAULTS, ...p.material })),
    textures: [],
    lights,
    cameras: [],
    bounds: boundsOf(geometry.positions)
  };
}

export const even = (radiance: number): SurroundingsLight => ({
  even: [radiance, radiance, radiance],
  image: null,
  sun: null
});
export const dark: SurroundingsLight = { even: null, image: null, sun: null };
export const viewFrom = (position_m: Vec3, target_m: Vec3, more: Partial<FreeViewpoint> = {}): FreeViewpoint => ({
  ...(BRIEF_DEFAULTS.viewpoint as FreeViewpoint),
  position_m: [...position_m],
  target_m: [...target_m],
  up:
    Math.abs(position_m[1] - target_m[1]) > 10 * Math.hypot(position_m[0] - target_m[0], position_m[2] - target_m[2])
      ? [0, 0, -1]
      : [0, 1, 0],
  ...more
});

export interface RenderOptions {
  width?: number;
  height?: number;
  samples?: number;
  bounces?: number;
  light?: SurroundingsLight;
  indoors?: boolean;
  limits?: Partial<PathLimits>;
  layers?: number;
  aovs?: boolean;
  ground?: GroundSettings | null;
  unmirrored?: boolean;
  openBacks?: boolean;
  section?: { normal: Vec3; distance: number } | null;
  seed?: number;
  /** Luminance of displayed white, for the grain. */
  white?: number;
  /** Shadow rays that could bring but little of that white are left to chance. */
  leavesSlight?: boolean;
}

/**
 * Rays a sample, mean radiance (rgb) of every pixel, its standard error, and the shares that reached the surroundings
 * unscattered.
 */
export function renderScene(
  scene: Scene | LitScene,
  view: FreeViewpoint,
  {
    width = 16,
    height = 16,
    samples = 64,
    bounces = 32,
    light = even(1),
    indoors = false,
    limits = {},
    layers = 0,
    aovs = false,
    ground = null,
    unmirrored = false,
    openBacks = false,
    section = null,
    seed = 1,
    white = 1,
    leavesSlight = false
  }: RenderOptions = {}
) {
  const seen = createCameraFrame(view, width / height)!;
  const centre: Vec3 = ground ? [0, 0, 0] : centreFor(seen.eye);
  const camera = recentreCamera(seen, centre);
  const packed = compileScene(recentreScene(scene, centre), kernelModule, undefined, ground?.height_m);
  const { memory, buffers } = layOut(
    packed,
    {
      width,
      height,
      camera,
      bounces,
      firefly: 0,
      ground,
      unmirrored,
      openBacks,
      section: section && { ...section, distance: section.distance - dot(section.normal, centre) },
      seed,
      light,
      indoors,
      limits: { ...NO_LIMITS, ...limits },
      layers,
      aovs: aovs ? { ambient_occlusion_m: 1000 } : null,
      white: leavesSlight ? white : undefined
    },
    1
  );
  const kernel = instantiate(kernelModule, memory, 0);
  kernel.takeRayCount();
  kernel.renderTile(buffers[0]!, 0, 0, width, height, 0, samples);
  const rays = kernel.takeRayCount() / (width * height * samples);
  const stride = layers + (aovs ? AOV_LAYERS : 0);
  const film = new Float32Array(memory.buffer, buffers[0]!, tileFloats(width * height, stride));
  const pixels = Array.from(
    { length: width * height },
    (_, i) =>
      [0, 1, 2].map((c) => (film[i * CHANNELS + c]! + film[i * CHANNELS + 3 + c]!) / samples) as [
        number,
        number,
        number
      ]
  );
  const mean = [0, 1, 2].map((c) => pixels.reduce((s, p) => s + p[c]!, 0) / pixels.length) as [number, number, number];
  const layerMeans = Array.from({ length: layers }, (_, g) =>
    [0, 1, 2].map(
      (c) =>
        pixels.reduce((sum, _p, i) => sum + film[width * height * CHANNELS + (i * stride + g) * 3 + c]!, 0) /
        pixels.length /
        samples
    )
  );
  const grain = Math.sqrt(squaredGrain(film, width * height, samples, white) / (width * height));
  const aovsOf = (i: number) =>
    film.subarray(
      width * height * CHANNELS + (i * stride + layers) * 3,
      width * height * CHANNELS + (i + 1) * stride * 3
    );
  return {
    grain,
    rays,
    layerMeans,
    aovsOf,
    pixels,
    mean,
    shares: Array.from({ length: width * height }, (_, i) => film[i * CHANNELS + 9]! / samples)
  };
}
