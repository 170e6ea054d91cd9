/** One render thread: its own instance of the kernel over the shared memory. */
import { parentPort, workerData } from 'node:worker_threads';
import { instantiate } from '../../kernel/host/kernel';
import { doTileWork, type ThreadStart, type TileWork } from '../../kernel/host/tile-work';

const { module, memory, thread } = workerData as ThreadStart;
const kernel = instantiate(module, memory, thread);

parentPort!.on('message', (work: TileWork) => parentPort!.postMessage(doTileWork(kernel, memory, work)));
