/** One render thread: its own instance of the kernel over the shared memory. */
import { parentPort, workerData } from 'node:worker_threads';
import { instantiate } from '../../kernel/host/kernel';
import type { ThreadStart, TileDone, TileWork } from './messages';

const { module, memory, thread } = workerData as ThreadStart;
const kernel = instantiate(module, memory, thread);

parentPort!.on('message', (work: TileWork) => {
  const began = performance.now();
  kernel.renderTile(work.buffer, work.x, work.y, work.width, work.height, work.first, work.count);
  const done: TileDone = { rays: kernel.takeRayCount(), seconds: (performance.now() - began) / 1000 };
  parentPort!.postMessage(done);
});
