/**
 * The learned filter on ONNX Runtime in Node. A run blocks its thread for seconds: keep it off threads that have to
 * answer.
 */
import { InferenceSession, Tensor } from 'onnxruntime-node';
import type { Clarify, Filter } from '../core/finishing/denoise/filter';
import { buildNetwork, INPUT, OUTPUT } from './network';
import { readWeights } from './weights';

const COLOUR = 3;

interface Network {
  channels: number;
  reachPx: number;
  run: Filter['run'];
}

/** Weights of the networks that take the grain out of reflectance and normals. */
export interface GuideWeights {
  reflectance: Uint8Array;
  normal: Uint8Array;
}

/** With `guides` for weights that want clean reflectance and normals, which look both ways. */
export async function createNodeFilter(weights: Uint8Array, threads: number, guides?: GuideWeights): Promise<Filter> {
  const light = await openNetwork(weights, threads);
  const filter = { channels: light.channels, linear: false, reachPx: light.reachPx };
  if (!guides) return { ...filter, run: light.run };
  return { ...filter, run: bothWays(light), once: light.run, clarify: await openClarify(guides, threads) };
}

/**
 * The mean of what a network makes of its input and of the input turned half round. It was trained with grain of all
 * orientations and has favourites nevertheless, so part of its errors cancel (Timofte, Rothe and Van Gool, Seven Ways
 * to Improve Example-Based Single Image Super Resolution, CVPR 2016, enhanced prediction).
 */
const bothWays =
  ({ channels, run }: Network): Filter['run'] =>
  async (input, height, width) => {
    const out = await run(input, height, width);
    const turned = halfTurned(await run(halfTurned(input, channels), height, width), COLOUR);
    for (let i = 0; i < out.length; i++) out[i] = (out[i]! + turned[i]!) / 2;
    return out;
  };

/** Planes read from their last pixel to their first. */
function halfTurned(planes: Float32Array, channels: number): Float32Array {
  const out = Float32Array.from(planes);
  const plane = planes.length / channels;
  for (let c = 0; c < channels; c++) out.subarray(c * plane, (c + 1) * plane).reverse();
  return out;
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

async function openNetwork(weights: Uint8Array, threads: number): Promise<Network> {
  const { model, channels, reachPx } = buildNetwork(readWeights(weights));
  // without its arena a network at rest holds no memory that the next one needs
  const session = await InferenceSession.create(model, {
    intraOpNumThreads: threads,
    interOpNumThreads: 1,
    executionProviders: ['cpu'],
    graphOptimizationLevel: 'all',
    enableCpuMemArena: false
  });
  const run: Filter['run'] = async (input, height, width) => {
    const result = await session.run({ [INPUT]: new Tensor('float32', input, [1, channels, height, width]) });
    return result[OUTPUT]!.data as Float32Array;
  };
  return { channels, reachPx, run };
}
