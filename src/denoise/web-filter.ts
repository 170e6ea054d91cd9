/**
 * The learned filter on ONNX Runtime in a browser's worker. A run blocks its worker for seconds. The runtime is given,
 * because a page loads it from its own server when it is wanted; `files` is the address that its two further files lie
 * under.
 */
import type { InferenceSession, Tensor } from 'onnxruntime-web';
import type { Filter } from '../core/finishing/denoise/filter';
import { buildNetwork, INPUT, OUTPUT } from './network';
import { readWeights } from './weights';

export interface WebRuntime {
  env: { wasm: { numThreads?: number; wasmPaths?: unknown }; logLevel?: string };
  InferenceSession: { create(model: Uint8Array, options: InferenceSession.SessionOptions): Promise<InferenceSession> };
  Tensor: new (type: 'float32', data: Float32Array, dims: readonly number[]) => Tensor;
}

export async function createWebFilter(
  runtime: WebRuntime,
  weights: Uint8Array,
  threads: number,
  files: string
): Promise<Filter> {
  runtime.env.wasm.numThreads = threads;
  runtime.env.wasm.wasmPaths = {
    mjs: `${files}ort-wasm-simd-threaded.mjs`,
    wasm: `${files}ort-wasm-simd-threaded.wasm`
  };
  runtime.env.logLevel = 'error';
  const { model, channels, reachPx } = buildNetwork(readWeights(weights));
  const session = await runtime.InferenceSession.create(model, {
    executionProviders: ['wasm'],
    graphOptimizationLevel: 'all'
  });
  return {
    channels,
    linear: false,
    reachPx,
    async run(input, height, width) {
      const result = await session.run({ [INPUT]: new runtime.Tensor('float32', input, [1, channels, height, width]) });
      return result[OUTPUT]!.data as Float32Array;
    }
  };
}
