/**
 * Traversal of the kernel against Embree (its best instruction set and held to SSE4.2) and three-mesh-bvh: the same room, the same
 * rays, one thread, one run, in turn. Prints million rays a second and the ratios; Embree is left out when its library is not installed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray as ThreeRay, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { createRandom } from '../../src/core/sampling/random';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene } from '../../src/core/scene/scene';
import { P_NODES, PACK } from '../../src/kernel/assembly/layout';
import { openScene } from '../../src/kernel/host/kernel';
import { buildPack } from '../../src/kernel/host/pack';
import { compileScene } from '../../src/kernel/host/rig';
import { treeHelpers } from '../../src/server/render/node-threads';
import { benchRoom } from './scene';

const KINDS = ['camera', 'bounce', 'shadow'] as const;
type Speeds = Record<(typeof KINDS)[number], number>;
const RAYS = 300_000;
const REPEATS = 5;
const root = process.env.SPHAERA_ROOT ?? process.cwd();
const folder = join(root, 'bench/work');
mkdirSync(folder, { recursive: true });

const { positions, indices } = benchRoom();
const vertices = positions.length / 3;
const triangles = indices.length / 3;
const scene: Scene = {
  ...NO_INSTANCES,
  geometry: { positions, indices, normals: new Float32Array(vertices * 3), tangents: new Float32Array(vertices * 4), uv0: new Float32Array(vertices * 2), uv1: new Float32Array(vertices * 2), colors: new Uint8Array(vertices * 4).fill(255), triangleMaterials: new Uint32Array(triangles) },
  materials: [MATERIAL_DEFAULTS],
  textures: [],
  lights: [],
  cameras: [],
  bounds: boundsOf(positions)
};
const module = new WebAssembly.Module(readFileSync(join(root, 'build/kernel.wasm')));
const pack = compileScene(scene, module, () => performance.now());
const { kernel, memory, at } = openScene(pack, module, RAYS * 44);
const f32 = new Float32Array(memory.buffer);
const i32 = new Int32Array(memory.buffer);
const out = at + RAYS * 32;
// the first build runs in code that is not yet compiled in full
const built = Math.min(...Array.from({ length: 5 }, () => buildPack(scene, module, () => performance.now()).buildSeconds));
const together = Math.min(...Array.from({ length: 5 }, () => buildPack(scene, module, () => performance.now(), treeHelpers(2)).buildSeconds));
console.log(`${triangles} triangles, ${i32[(PACK + P_NODES) >> 2]} nodes, built at ${(triangles / built / 1e6).toFixed(2)} million triangles/s on one thread, the first time at ${(triangles / pack.buildSeconds / 1e6).toFixed(2)}; on two at ${(triangles / together / 1e6).toFixed(2)}`);

const rays = makeRays();
for (const kind of KINDS) writeFileSync(join(folder, `${kind}.rays`), new Uint8Array(rays[kind].buffer));
writeFileSync(join(folder, 'positions.bin'), new Uint8Array(positions.buffer));
writeFileSync(join(folder, 'indices.bin'), new Uint8Array(indices.buffer));

const embree = buildEmbree();
const results: Record<string, Speeds> = {};
const best = (name: string, speeds: Speeds) => {
  const known = results[name];
  results[name] = known ? (Object.fromEntries(KINDS.map((k) => [k, Math.max(known[k], speeds[k])])) as Speeds) : speeds;
};
for (let i = 0; i < REPEATS; i++) {
  best('kernel', runKernel());
  if (!embree) continue;
  best('Embree, best', runEmbree('threads=1'));
  best('Embree, SSE4.2', runEmbree('threads=1,isa=sse4.2,max_isa=sse4.2'));
}
best('three-mesh-bvh', runThree());
let agreement = '';
if (embree) {
  const agrees = KINDS.map((kind) => {
    f32.set(rays[kind], at >> 2);
    const theirs = new Float32Array(readFileSync(join(folder, `${kind}.hits`)).buffer.slice(0));
    if (kind === 'shadow') kernel.occludedMany(at, RAYS, out);
    else kernel.intersectMany(at, RAYS, out);
    let good = 0;
    for (let i = 0; i < RAYS; i++) {
      const ours = f32[(out >> 2) + (kind === 'shadow' ? i : i * 2)]!;
      if (ours < 0 === theirs[i]! < 0 && Math.abs(ours - theirs[i]!) <= 1e-4 * Math.max(1, theirs[i]!)) good++;
    }
    return `${kind} ${((100 * good) / RAYS).toFixed(4)} %`;
  });
  agreement = `hits that agree with Embree: ${agrees.join(', ')}`;
}

const lines = ['| million rays/s, one thread | camera | bounce | shadow |', '| --- | --- | --- | --- |'];
for (const [name, s] of Object.entries(results)) lines.push(`| ${name} | ${KINDS.map((k) => s[k].toFixed(2)).join(' | ')} |`);
for (const name of Object.keys(results).filter((n) => n !== 'kernel')) lines.push(`| kernel / ${name} | ${KINDS.map((k) => (results.kernel![k] / results[name]![k]).toFixed(2)).join(' | ')} |`);
console.log(lines.join('\n'));
if (agreement) console.log(agreement);

function makeRays(): Record<(typeof KINDS)[number], Float32Array> {
  const random = createRandom(9);
  const eye = [0.25, 1.7, 4.75];
  const forward = unit([3.95, -0.85, -3.15]);
  const right = unit([-forward[2]!, 0, forward[0]!]);
  const up = [right[1]! * forward[2]! - right[2]! * forward[1]!, right[2]! * forward[0]! - right[0]! * forward[2]!, right[0]! * forward[1]! - right[1]! * forward[0]!];
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
      const [a, b, c] = [0, 1, 2].map((k) => [...positions.subarray(indices[triangle * 3 + k]! * 3, indices[triangle * 3 + k]! * 3 + 3)]);
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

function unit(v: number[]): number[] {
  const size = Math.hypot(...v) || 1;
  return v.map((c) => c / size);
}

function runKernel(): Speeds {
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

function buildEmbree(): string | null {
  if (!existsSync('/usr/include/embree3/rtcore.h')) {
    console.log('Embree is not installed (Debian: libembree-dev); its side is left out');
    return null;
  }
  const program = join(folder, 'embree');
  const { status } = spawnSync('g++', ['-O3', '-march=native', join(root, 'bench/traversal/embree.cpp'), '-o', program, '-lembree3'], { stdio: 'inherit' });
  return status === 0 ? program : null;
}

function runEmbree(setting: string): Speeds {
  const { stdout, status } = spawnSync(embree!, [folder, setting, '1'], { encoding: 'utf8' });
  if (status !== 0) throw new Error(`embree ended with code ${status}`);
  return JSON.parse(stdout) as Speeds;
}

function runThree(): Speeds {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  geometry.setIndex(new BufferAttribute(indices.slice(), 1));
  const bvh = new MeshBVH(geometry);
  const few = RAYS / 10;
  const ray = new ThreeRay(new Vector3(), new Vector3());
  return Object.fromEntries(
    KINDS.map((kind) => {
      const began = process.cpuUsage();
      for (let i = 0; i < few; i++) {
        const o = i * 80;
        ray.origin.set(rays[kind][o]!, rays[kind][o + 1]!, rays[kind][o + 2]!);
        ray.direction.set(rays[kind][o + 4]!, rays[kind][o + 5]!, rays[kind][o + 6]!);
        bvh.raycastFirst(ray, DoubleSide, 0, rays[kind][o + 7]!);
      }
      const used = process.cpuUsage(began);
      return [kind, few / (used.user + used.system)];
    })
  ) as Speeds;
}
