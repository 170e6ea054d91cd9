/** The learned filter on ONNX Runtime in Node. A run blocks its thread for seconds: keep it off threads that have to answer. */
import { InferenceSession, Tensor } from 'onnxruntime-node';
import type { Clarify, Filter } from '../core/finishing/denoise/filter';
import { buildNetwork, INPUT, OUTPUT } from './network';
import { readWeights } from './weights';

/** Weights of the networks that take the grain out of reflectance and normals. */
export interface GuideWeights {
  reflectance: Uint8Array;
  normal: Uint8Array;
}

/** With `guides` for weights that want clean reflectance and normals. */
export async function createNodeFilter(weights: Uint8Array, threads: number, guides?: GuideWeights): Promise<Filter> {
  const light = await openNetwork(weights, threads);
  return { channels: light.channels, linear: false, reachPx: light.reachPx, run: light.run, ...(guides ? { clarify: await openClarify(guides, threads) } : {}) };
}

async function openClarify(guides: GuideWeights, threads: number): Promise<Clarify> {
  const reflectance = await openNetwork(guides.reflectance, threads);
  const normal = await openNetwork(guides.normal, threads);
  return {
    reachPx: Math.max(reflectance.reachPx, normal.reachPx),
    async run(features, height, width) {
      const half = 3 * height * width;
      const out = new Float32Array(2 * half);
      out.set(await reflectance.run(features.slice(0, half), height, width));
      out.set(await normal.run(features.slice(half), height, width), half);
      return out;
    }
  };
}

async function openNetwork(weights: Uint8Array, threads: number) {
  const { model, channels, reachPx } = buildNetwork(readWeights(weights));
  // without its arena a network at rest holds no memory that the next one needs
  const session = await InferenceSession.create(model, { intraOpNumThreads: threads, interOpNumThreads: 1, executionProviders: ['cpu'], graphOptimizationLevel: 'all', enableCpuMemArena: false });
  const run = async (input: Float32Array, height: number, width: number) => {
    const result = await session.run({ [INPUT]: new Tensor('float32', input, [1, channels, height, width]) });
    return result[OUTPUT]!.data as Float32Array;
  };
  return { channels, reachPx, run };
}
