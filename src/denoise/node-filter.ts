/** The learned filter on ONNX Runtime in Node. A run blocks its thread for seconds: keep it off threads that have to answer. */
import { InferenceSession, Tensor } from 'onnxruntime-node';
import type { Filter } from '../core/finishing/denoise/filter';
import { buildNetwork, INPUT, OUTPUT } from './network';
import { readWeights } from './weights';

export async function createNodeFilter(weights: Uint8Array, threads: number): Promise<Filter> {
  const { model, channels } = buildNetwork(readWeights(weights));
  const session = await InferenceSession.create(model, { intraOpNumThreads: threads, interOpNumThreads: 1, executionProviders: ['cpu'], graphOptimizationLevel: 'all' });
  return {
    channels,
    linear: false,
    async run(input, height, width) {
      const result = await session.run({ [INPUT]: new Tensor('float32', input, [1, channels, height, width]) });
      return result[OUTPUT]!.data as Float32Array;
    }
  };
}
