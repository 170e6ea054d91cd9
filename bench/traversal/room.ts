/**
 * The bench's room in the kernel, with three sets of rays: from a camera, on from where those meet, and to lights from
 * there.
 */
import { createRandom } from '../../src/core/sampling/random';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene } from '../../src/core/scene/scene';
import { P_NODES, PACK } from '../../src/kernel/assembly/layout';
import { openScene } from '../../src/kernel/host/kernel';
import { compileScene } from '../../src/kernel/host/rig';
import { benchRoom } from './scene';

export const KINDS = ['camera', 'bounce', 'shadow'] as const;
/** Million rays a second of processor time, one thread. */
export type Speeds = Record<(typeof KINDS)[number], number>;
export const RAYS = 300_000;

export function openBenchRoom(module: WebAssembly.Module) {
  const triangles = benchRoom();
  const { positions, indices } = triangles;
  const vertices = positions.length / 3;
  const scene: Scene = {
    ...NO_INSTANCES,
    geometry: {
      positions,
      indices,
      normals: new Float32Array(vertices * 3),
      tangents: new Float32Array(vertices * 4),
      uv0: new Float32Array(vertices * 2),
      uv1: new Float32Array(vertices * 2),
      colors: new Uint16Array(vertices * 4).fill(65_535),
      triangleMaterials: new Uint32Array(indices.length / 3)
    },
    materials: [MATERIAL_DEFAULTS],
    textures: [],
    lights: [],
    cameras: [],
    bounds: boundsOf(positions)
  };
  const pack = compileScene(scene, module, () => performance.now());
  const { kernel, memory, at } = openScene(pack, module, RAYS * 44);
  const f32 = new Float32Array(memory.buffer);
  const i32 = new Int32Array(memory.buffer);
  const out = at + RAYS * 32;
  const rays = makeRays();
  const nodes = i32[(PACK + P_NODES) >> 2]!;
  return { triangles, scene, kernel, rays, at, out, f32, nodes, buildSeconds: pack.buildSeconds, speeds };

  function speeds(): Speeds {
    return Object.fromEntries(
      KINDS.map((kind) => {
        f32.set(rays[kind], at >> 2);
        const began = process.cpuUsage();
        if (kind === 'shadow') kernel.occludedMany(at, RAYS, out);
        else kernel.intersectMany(at, RAYS, out);
        const used = process.cpuUsage(began);
        return [kind, RAYS / (used.user + used.system)];
      })
    ) as Speeds;
  }

  function makeRays(): Record<(typeof KINDS)[number], Float32Array> {
    const random = createRandom(9);
    const eye = [0.25, 1.7, 4.75];
    const forward = unit([3.95, -0.85, -3.15]);
    const right = unit([-forward[2]!, 0, forward[0]!]);
    const up = [
      right[1]! * forward[2]! - right[2]! * forward[1]!,
      right[2]! * forward[0]! - right[0]! * forward[2]!,
      right[0]! * forward[1]! - right[1]! * forward[0]!
    ];
    const camera = new Float32Array(RAYS * 8);
    const side = Math.ceil(Math.sqrt(RAYS / 256)) * 16;
    let n = 0;
    // 16 x 16 px tiles, as a renderer walks them
    for (let ty = 0; ty < side && n < RAYS; ty += 16)
      for (let tx = 0; tx < side && n < RAYS; tx += 16)
        for (let k = 0; k < 256 && n < RAYS; k++, n++) {
          const px = (((tx + (k & 15) + random()) / side) * 2 - 1) * 0.75;
          const py = (1 - ((ty + (k >> 4) + random()) / side) * 2) * 0.75;
          const d = unit([0, 1, 2].map((c) => forward[c]! + px * right[c]! + py * up[c]!));
          camera.set([...eye, 0, ...d, Number.POSITIVE_INFINITY], n * 8);
        }
    f32.set(camera, at >> 2);
    kernel.intersectMany(at, RAYS, out);
    const bounce = new Float32Array(RAYS * 8);
    const shadow = new Float32Array(RAYS * 8);
    for (let i = 0; i < RAYS; i++) {
      const t = f32[(out >> 2) + i * 2]!;
      const triangle = i32[(out >> 2) + i * 2 + 1]!;
      const o = camera.subarray(i * 8, i * 8 + 8);
      let normal = [0, 1, 0];
      let from = [o[0]!, o[1]!, o[2]!];
      if (triangle >= 0) {
        const [a, b, c] = [0, 1, 2].map((k) => [
          ...positions.subarray(indices[triangle * 3 + k]! * 3, indices[triangle * 3 + k]! * 3 + 3)
        ]);
        const e = b!.map((v, k) => v - a![k]!);
        const f = c!.map((v, k) => v - a![k]!);
        normal = unit([e[1]! * f[2]! - e[2]! * f[1]!, e[2]! * f[0]! - e[0]! * f[2]!, e[0]! * f[1]! - e[1]! * f[0]!]);
        if (normal[0]! * o[4]! + normal[1]! * o[5]! + normal[2]! * o[6]! > 0) normal = normal.map((v) => -v);
        from = [0, 1, 2].map((k) => o[k]! + t * o[4 + k]! + 1e-4 * normal[k]!);
      }
      const sphere = () => {
        const z = 1 - 2 * random();
        const p = 2 * Math.PI * random();
        const r = Math.sqrt(1 - z * z);
        return [r * Math.cos(p), r * Math.sin(p), z];
      };
      const s = sphere();
      bounce.set([...from, 0, ...unit(normal.map((v, k) => v * 1.0001 + s[k]!)), Number.POSITIVE_INFINITY], i * 8);
      let way: number[];
      let far = Number.POSITIVE_INFINITY;
      if (random() < 0.7) {
        const target = [6, 0.8 + 1.6 * random(), 1 + 3 * random()];
        way = target.map((v, k) => v - from[k]!);
        far = Math.hypot(...way) * 0.9999;
      } else {
        way = sphere();
        way[1] = Math.abs(way[1]!);
      }
      way = unit(way);
      const along = way.reduce((sum, v, k) => sum + v * normal[k]!, 0);
      if (along <= 0) way = way.map((v, k) => v - 2 * along * normal[k]!);
      shadow.set([...from, 0, ...way, far], i * 8);
    }
    return { camera, bounce, shadow };
  }
}

function unit(v: number[]): number[] {
  const size = Math.hypot(...v) || 1;
  return v.map((c) => c / size);
}
