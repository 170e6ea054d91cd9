/** One render thread of the browser: its own instance of the kernel over the shared memory. */
import { instantiate, type KernelExports } from '../../../kernel/host/kernel';
import { doTileWork, type ThreadStart, type TileWork } from '../../../kernel/host/tile-work';

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<ThreadStart | TileWork | null>) => void) | null;
  postMessage(message: unknown): void;
};
let start: ThreadStart | null = null;
let kernel: KernelExports | null = null;

scope.onmessage = ({ data }) => {
  if (data === null) {
    start = null;
    kernel = null;
  } else if ('module' in data) {
    start = data;
    kernel = instantiate(data.module, data.memory, data.thread);
  } else scope.postMessage(doTileWork(kernel!, start!.memory, data));
};
