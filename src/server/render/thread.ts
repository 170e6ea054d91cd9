/** One render thread: its own instance of the kernel over the shared memory. */
import { parentPort, workerData } from 'node:worker_threads';
import { CHANNELS } from '../../core/film/film';
import { squaredGrain } from '../../core/quality/grain';
import { instantiate } from '../../kernel/host/kernel';
import type { ThreadStart, TileDone, TileWork } from './messages';

const { module, memory, thread } = workerData as ThreadStart;
const kernel = instantiate(module, memory, thread);

parentPort!.on('message', (work: TileWork) => {
  const began = performance.now();
  kernel.clearLimited();
  kernel.renderTile(work.buffer, work.x, work.y, work.width, work.height, work.first, work.count);
  // measured here, not by the pool: it takes a tenth of a pass of few samples
  const pixels = work.width * work.height;
  const samples = work.first + work.count;
  const grain = samples >= 2 ? squaredGrain(new Float32Array(memory.buffer, work.buffer, pixels * CHANNELS), pixels, samples, work.white) : 0;
  const done: TileDone = { rays: kernel.takeRayCount(), light: { scattered: kernel.lightScattered(), limited: kernel.lightLimited() }, seconds: (performance.now() - began) / 1000, squaredGrain: grain };
  parentPort!.postMessage(done);
});
