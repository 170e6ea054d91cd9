/** Whole paths on the three demo scenes: samples and rays a second with one thread and with all, and the CPU time a ray takes. */
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { tilesOf } from '../../src/core/film/film';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/demo/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { MemoryFilm } from '../../src/core/film/store';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openPool } from '../../src/server/render/node-threads';
import { renderFilm } from '../../src/kernel/host/render-film';
import { prepare } from '../../src/server/render/session';

const SIZE = { width_px: 384, height_px: 288 };
const SAMPLES = 16;
const module = await loadKernel();
console.log('| scene | triangles | threads | samples/s | million rays/s | rays a sample | CPU µs a ray |\n| --- | --- | --- | --- | --- | --- | --- |');
for (const project of DEMO_PROJECTS) {
  const scene = await readScene(await writeModel(project.model()));
  const brief = { ...BRIEF_DEFAULTS, ...project.pictures[0]!.brief, size: SIZE, exposure: { ev100: 12 }, quality: { ...project.pictures[0]!.brief.quality, scale: 1 } };
  const prepared = await prepare({ scene, brief, captured: null, module, threads: 1 });
  const tiles = tilesOf(SIZE.width_px, SIZE.height_px);
  for (const threads of config.threads > 1 ? [1, config.threads] : [1]) {
    const pool = openPool(module, layOut(prepared.packed, prepared.settings, threads));
    await renderFilm(pool, new MemoryFilm(), tiles, { samples: 1, grain: null, seconds: null, white: 1 }); // compiles and warms
    const began = process.cpuUsage();
    const end = await renderFilm(pool, new MemoryFilm(), tiles, { samples: SAMPLES, grain: null, seconds: null, white: 1 });
    const used = process.cpuUsage(began);
    await pool.close();
    const samples = SIZE.width_px * SIZE.height_px * SAMPLES;
    console.log(
      `| ${project.name} | ${prepared.triangles} | ${threads} | ${Math.round(samples / end.seconds).toLocaleString('en')} | ${(end.rays / end.seconds / 1e6).toFixed(2)} | ${(end.rays / samples).toFixed(1)} | ${((used.user + used.system) / end.rays).toFixed(2)} |`
    );
  }
}
process.exit(0);
