/**
 * How speed and memory grow with a model: rays a second and bytes a triangle at 10 thousand to 10 million triangles
 * (the last placed as a hundred copies), and whether a hundred million rays in a sealed box find a way out. Prints a
 * table, draws bench/scale.svg.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { affine } from '../../src/core/math/affine';
import { createRandom } from '../../src/core/sampling/random';
import { boundsOf, MATERIAL_DEFAULTS, NO_INSTANCES, type Scene, type SceneGeometry } from '../../src/core/scene/scene';
import { openScene } from '../../src/kernel/host/kernel';
import { compileScene } from '../../src/kernel/host/rig';

const root = process.env.SPHAERA_ROOT ?? process.cwd();
const module = new WebAssembly.Module(readFileSync(join(root, 'build/kernel.wasm')));
const RAYS = 200_000;
const LEAK_RAYS = 100_000_000;

/** Rolling ground of 2 n2 triangles over 10 x 10 m, folded so that rays meet it often. */
function ground(n: number): SceneGeometry {
  const positions = new Float32Array((n + 1) ** 2 * 3);
  const indices = new Uint32Array(n * n * 6);
  for (let j = 0, v = 0, i6 = 0; j <= n; j++) {
    for (let i = 0; i <= n; i++, v++) {
      const [x, z] = [(10 * i) / n, (10 * j) / n];
      positions.set(
        [
          x,
          0.4 * Math.sin(2 * x) * Math.cos(1.7 * z) +
            0.1 * Math.sin(9 * x + 4 * z) +
            0.02 * Math.sin(60 * x) * Math.sin(55 * z),
          z
        ],
        v * 3
      );
      if (i < n && j < n) {
        indices.set([v, v + n + 1, v + 1, v + 1, v + n + 1, v + n + 2], i6);
        i6 += 6;
      }
    }
  }
  return geometryOf(positions, indices);
}

function geometryOf(positions: Float32Array, indices: Uint32Array): SceneGeometry {
  const v = positions.length / 3;
  return {
    positions,
    indices,
    normals: new Float32Array(v * 3),
    tangents: new Float32Array(v * 4),
    uv0: new Float32Array(v * 2),
    uv1: new Float32Array(v * 2),
    colors: new Uint16Array(v * 4).fill(65_535),
    triangleMaterials: new Uint32Array(indices.length / 3)
  };
}

const sceneOf = (geometry: SceneGeometry, more: Partial<Scene> = {}): Scene => ({
  ...NO_INSTANCES,
  geometry,
  materials: [MATERIAL_DEFAULTS],
  textures: [],
  lights: [],
  cameras: [],
  bounds: boundsOf(geometry.positions),
  ...more
});

interface Row {
  triangles: number;
  raysPerSecond: number;
  bytes: number;
  buildPerSecond: number;
}

/** Rays from a hemisphere above the ground into it: half of them camera-like and near together, half anywhere. */
function measure(scene: Scene, side: number): Row {
  const pack = compileScene(scene, module, () => performance.now());
  const { kernel, memory, at } = openScene(pack, module, RAYS * 40);
  const f32 = new Float32Array(memory.buffer);
  const random = createRandom(5);
  for (let i = 0; i < RAYS; i++) {
    const from = [side * random(), 0.7 + 2 * random(), side * random()];
    const to =
      i < RAYS / 2
        ? [side * (0.3 + (0.4 * (i % 512)) / 512), 0, side * (0.3 + (0.4 * Math.floor(i / 512)) / 200)]
        : [side * random(), 0.2, side * random()];
    const d = to.map((v, k) => v - from[k]!);
    const size = Math.hypot(...d);
    f32.set(
      [...(i < RAYS / 2 ? [side / 2, 4, -1] : from), 0, ...d.map((v) => v / size), Number.POSITIVE_INFINITY],
      (at >> 2) + i * 8
    );
  }
  let seconds = Number.POSITIVE_INFINITY;
  for (let k = 0; k < 5; k++) {
    const began = process.cpuUsage();
    kernel.intersectMany(at, RAYS, at + RAYS * 32);
    const used = process.cpuUsage(began);
    seconds = Math.min(seconds, (used.user + used.system) / 1e6);
  }
  const stored = (scene.geometry.indices.length + scene.objects.reduce((s, o) => s + o.indices.length, 0)) / 3;
  return {
    triangles: pack.triangles,
    raysPerSecond: RAYS / seconds,
    bytes: pack.pack.length + pack.rig.length,
    buildPerSecond: stored / pack.buildSeconds
  };
}

const rows: Row[] = [];
for (const n of [71, 224, 707]) rows.push(measure(sceneOf(ground(n)), 10));
const tile = ground(224);
const copies = Array.from({ length: 100 }, (_, i) => ({
  object: 0,
  name: `${i}`,
  matrix: affine([1, 0, 0], [0, 1, 0], [0, 0, 1], [(i % 10) * 10, 0, Math.floor(i / 10) * 10])
}));
rows.push(
  measure(sceneOf(geometryOf(new Float32Array(0), new Uint32Array(0)), { objects: [tile], instances: copies }), 100)
);
console.log(
  '| triangles | million rays/s | bytes a triangle | MB in all | built, million triangles/s |\n| --- | --- | --- | --- | --- |'
);
for (const r of rows)
  console.log(
    `| ${r.triangles.toLocaleString('en')} | ${(r.raysPerSecond / 1e6).toFixed(2)} | ` +
      `${(r.bytes / r.triangles).toFixed(1)} | ${(r.bytes / 1e6).toFixed(1)} | ` +
      `${(r.buildPerSecond / 1e6).toFixed(2)} |`
  );
const slope = (a: Row, b: Row) =>
  (1e9 / b.raysPerSecond - 1e9 / a.raysPerSecond) / Math.log10(b.triangles / a.triangles);
console.log(
  `a ray takes ${rows
    .slice(1)
    .map((r, i) => slope(rows[i]!, r).toFixed(0))
    .join(
      ', '
    )} ns more with each tenfold: logarithmic growth keeps this the same, linear growth would multiply it by ten`
);
console.log('textures: four bytes a texel and a third more for their coarser copies');
draw(rows);
leaks();

function draw(points: Row[]): void {
  const x = (t: number) => 60 + ((Math.log10(t) - 4) / 3) * 400;
  const most = Math.max(...points.map((p) => 1e9 / p.raysPerSecond)) * 1.15;
  const y = (p: Row) => 250 - (1e9 / p.raysPerSecond / most) * 210;
  const line = points.map((p) => `${x(p.triangles).toFixed(1)},${y(p).toFixed(1)}`).join(' ');
  const dots = points
    .map(
      (p) =>
        `<circle cx="${x(p.triangles).toFixed(1)}" cy="${y(p).toFixed(1)}" r="4" ` +
        `fill="#7a4b2a"/><text x="${x(p.triangles).toFixed(1)}" y="${(y(p) - 10).toFixed(1)}" ` +
        `text-anchor="middle">${(1e9 / p.raysPerSecond).toFixed(0)} ns</text>`
    )
    .join('');
  const ticks = [4, 5, 6, 7]
    .map(
      (k) =>
        `<text x="${x(10 ** k)}" y="272" ` +
        `text-anchor="middle">${['10 thousand', '100 thousand', '1 million', '10 million, placed'][k - 4]}</text>`
    )
    .join('');
  writeFileSync(
    join(root, 'bench/scale.svg'),
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 520 300" font-family="sans-serif" ` +
      `font-size="11" fill="#333"><rect width="520" height="300" fill="#fff"/><path d="M60 30V250H480" ` +
      `fill="none" stroke="#999"/><polyline points="${line}" fill="none" stroke="#7a4b2a" ` +
      `stroke-width="2"/>${dots}${ticks}<text x="60" y="20">time a ray takes, against ` +
      `triangles</text></svg>\n`
  );
}

/** A closed box of twelve triangles; rays from everywhere inside, a third of them aimed at its edges and corners. */
function leaks(): void {
  const c = [-1, 1].flatMap((x) => [-1, 1].flatMap((y) => [-1, 1].map((z) => [x * 2, y * 1.5, z]))).flat();
  const faces = [
    0, 1, 3, 0, 3, 2, 4, 6, 7, 4, 7, 5, 0, 4, 5, 0, 5, 1, 2, 3, 7, 2, 7, 6, 0, 2, 6, 0, 6, 4, 1, 5, 7, 1, 7, 3
  ];
  const pack = compileScene(sceneOf(geometryOf(Float32Array.from(c), Uint32Array.from(faces))), module);
  const { kernel, memory, at } = openScene(pack, module, RAYS * 40);
  const f32 = new Float32Array(memory.buffer);
  const random = createRandom(77);
  const out = at + RAYS * 32;
  const side = () => (random() < 0.5 ? -1 : 1);
  let through = 0;
  for (let done = 0; done < LEAK_RAYS; done += RAYS) {
    for (let i = 0, o = at >> 2; i < RAYS; i++, o += 8) {
      const px = 1.999 * (2 * random() - 1);
      const py = 1.499 * (2 * random() - 1);
      const pz = 0.999 * (2 * random() - 1);
      let tx = 2 * random() - 1;
      let ty = 2 * random() - 1;
      let tz = 2 * random() - 1;
      if (i % 3 === 0) {
        // onto an edge
        [tx, ty, tz] = [2 * side(), 1.5 * side(), 2 * random() - 1];
        tx -= px;
        ty -= py;
        tz -= pz;
      }
      const k = 1 / Math.sqrt(tx * tx + ty * ty + tz * tz);
      f32[o] = px;
      f32[o + 1] = py;
      f32[o + 2] = pz;
      f32[o + 3] = 0;
      f32[o + 4] = tx * k;
      f32[o + 5] = ty * k;
      f32[o + 6] = tz * k;
      f32[o + 7] = Number.POSITIVE_INFINITY;
    }
    kernel.intersectMany(at, RAYS, out);
    for (let i = 0, o = out >> 2; i < RAYS; i++, o += 2) if (f32[o]! < 0) through++;
  }
  console.log(
    `sealed box: ${through} of ${LEAK_RAYS.toLocaleString('en')} rays found a way out, a third of them aimed at its edges`
  );
}
