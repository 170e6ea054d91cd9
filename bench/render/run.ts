/**
 * Whole paths on the three demo scenes at their briefs' own exposure, which decides what light is slight: samples and rays a second with one thread and with all, the
 * CPU time a ray takes, and how many times what as many camera, bounce and shadow rays take in the room of the traversal bench, in turn with it: the machine's own speed moves.
 */
import { BRIEF_DEFAULTS } from '../../src/core/brief/brief';
import { tilesOf } from '../../src/core/film/film';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/demo/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { MemoryFilm } from '../../src/core/film/store';
import { loadKernel } from '../../src/server/render/kernel-file';
import type { TilePool } from '../../src/kernel/host/pool';
import { openPool } from '../../src/server/render/node-threads';
import { renderFilm } from '../../src/kernel/host/render-film';
import { prepare } from '../../src/server/render/session';
import { KINDS, openBenchRoom } from '../traversal/room';

const SIZE = { width_px: 384, height_px: 288 };
const SAMPLES = 16;
const module = await loadKernel();
const TURNS = 3;
const room = openBenchRoom(module);
room.speeds();
console.log("| scene | triangles | threads | samples/s | million rays/s | rays a sample | CPU µs a ray | times its rays in the bench's room |\n| --- | --- | --- | --- | --- | --- | --- | --- |");
for (const project of DEMO_PROJECTS) {
  const scene = await readScene(await writeModel(project.model()));
  const brief = { ...BRIEF_DEFAULTS, ...project.pictures[0]!.brief, size: SIZE, quality: { ...project.pictures[0]!.brief.quality, scale: 1 } };
  const prepared = await prepare({ scene, brief, captured: null, module, threads: 1 });
  const tiles = tilesOf(SIZE.width_px, SIZE.height_px);
  for (const threads of config.threads > 1 ? [1, config.threads] : [1]) {
    const pool = openPool(module, layOut(prepared.packed, prepared.settings, threads));
    const samples = SIZE.width_px * SIZE.height_px * SAMPLES;
    let shadowRays = 0;
    const counting: TilePool = {
      threads: pool.threads,
      layers: pool.layers,
      render: async (...work) => {
        const done = await pool.render(...work);
        shadowRays += done.shadowRays;
        return done;
      }
    };
    await renderFilm(pool, new MemoryFilm(), tiles, { samples: 1, grain: null, seconds: null, white: 1 }); // compiles and warms
    const best = { micros: Number.POSITIVE_INFINITY, seconds: Number.POSITIVE_INFINITY, speeds: { camera: 0, bounce: 0, shadow: 0 } };
    let rays = 0;
    for (let turn = 0; turn < TURNS; turn++) {
      const speeds = room.speeds();
      for (const kind of KINDS) best.speeds[kind] = Math.max(best.speeds[kind], speeds[kind]);
      shadowRays = 0;
      const began = process.cpuUsage();
      const end = await renderFilm(counting, new MemoryFilm(), tiles, { samples: SAMPLES, grain: null, seconds: null, white: 1 });
      const used = process.cpuUsage(began);
      rays = end.rays;
      best.micros = Math.min(best.micros, used.user + used.system);
      best.seconds = Math.min(best.seconds, end.seconds);
    }
    await pool.close();
    // a path's first ray is the camera's; speeds are million rays/s, so rays over speed are microseconds
    const inTheRoom = samples / best.speeds.camera + (rays - samples - shadowRays) / best.speeds.bounce + shadowRays / best.speeds.shadow;
    console.log(
      `| ${project.name} | ${prepared.triangles} | ${threads} | ${Math.round(samples / best.seconds).toLocaleString('en')} | ${(rays / best.seconds / 1e6).toFixed(2)} | ${(rays / samples).toFixed(1)} | ${(best.micros / rays).toFixed(2)} | ${(best.micros / inTheRoom).toFixed(2)} |`
    );
  }
}
process.exit(0);
