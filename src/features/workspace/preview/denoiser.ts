/** The worker in which the learned filter runs: by itself, because a run cannot be asked anything until it ends. */
import type { Filter } from '../../../core/finishing/denoise/filter';
import { createWebFilter, type WebRuntime } from '../../../denoise/web-filter';

export type DenoiserOrder = { threads: number } | { input: Float32Array; height: number; width: number };
export type DenoiserReport = { ready: number } | { output: Float32Array } | { fault: string };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<DenoiserOrder>) => void) | null;
  postMessage(message: DenoiserReport, transfer?: Transferable[]): void;
};
const FILES = '/api/filter/';
let filter: Filter | null = null;

async function open(threads: number): Promise<Filter> {
  const weights = await fetch(`${FILES}small.weights`);
  if (!weights.ok) throw new Error('the learned filter’s weights are not installed');
  // from our own server at run time: the runtime finds its further files beside itself
  const address = new URL(`${FILES}ort.wasm.min.mjs`, self.location.origin).href;
  const runtime = (await import(/* turbopackIgnore: true */ /* webpackIgnore: true */ address)) as WebRuntime;
  return createWebFilter(runtime, new Uint8Array(await weights.arrayBuffer()), threads, new URL(FILES, address).href);
}

scope.onmessage = ({ data: order }) => {
  void (async () => {
    if ('threads' in order) {
      filter = await open(order.threads);
      scope.postMessage({ ready: filter.channels });
    } else {
      const output = (await filter!.run(order.input, order.height, order.width)).slice();
      scope.postMessage({ output }, [output.buffer]);
    }
  })().catch((error: unknown) => scope.postMessage({ fault: error instanceof Error ? error.message : String(error) }));
};
