/**
 * Traversal of the kernel against Embree (its best instruction set and held to SSE4.2) and three-mesh-bvh: the same
 * room, the same rays, one thread, one run, in turn. Prints million rays a second and the ratios; Embree is left out
 * when its library is not installed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray as ThreeRay, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { buildPack } from '../../src/kernel/host/pack';
import { treeHelpers } from '../../src/server/render/node-threads';
import { KINDS, openBenchRoom, RAYS, type Speeds } from './room';

const REPEATS = 5;
const root = process.env.SPHAERA_ROOT ?? process.cwd();
const folder = join(root, 'bench/work');
mkdirSync(folder, { recursive: true });

const module = new WebAssembly.Module(readFileSync(join(root, 'build/kernel.wasm')));
const room = openBenchRoom(module);
const { positions, indices } = room.triangles;
const { scene, kernel, rays, at, out, f32 } = room;
const triangles = indices.length / 3;
// the first build runs in code that is not yet compiled in full
const built = Math.min(
  ...Array.from({ length: 5 }, () => buildPack(scene, module, () => performance.now()).buildSeconds)
);
const together = Math.min(
  ...Array.from({ length: 5 }, () => buildPack(scene, module, () => performance.now(), treeHelpers(2)).buildSeconds)
);
console.log(
  `${triangles} triangles, ${room.nodes} nodes, built at ${(triangles / built / 1e6).toFixed(2)} ` +
    `million triangles/s on one thread, the first time at ` +
    `${(triangles / room.buildSeconds / 1e6).toFixed(2)}; on two at ` +
    `${(triangles / together / 1e6).toFixed(2)}`
);

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
  best('kernel', room.speeds());
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
for (const [name, s] of Object.entries(results))
  lines.push(`| ${name} | ${KINDS.map((k) => s[k].toFixed(2)).join(' | ')} |`);
for (const name of Object.keys(results).filter((n) => n !== 'kernel'))
  lines.push(
    `| kernel / ${name} | ${KINDS.map((k) => (results.kernel![k] / results[name]![k]).toFixed(2)).join(' | ')} |`
  );
console.log(lines.join('\n'));
if (agreement) console.log(agreement);

function buildEmbree(): string | null {
  if (!existsSync('/usr/include/embree3/rtcore.h')) {
    console.log('Embree is not installed (Debian: libembree-dev); its side is left out');
    return null;
  }
  const program = join(folder, 'embree');
  const { status } = spawnSync(
    'g++',
    ['-O3', '-march=native', join(root, 'bench/traversal/embree.cpp'), '-o', program, '-lembree3'],
    { stdio: 'inherit' }
  );
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
