/**
 * The learned filter's network as an ONNX model: a U-Net of four levels with skip connections (Ronneberger et al.
 * 2015), each convolution 3 x 3 with ReLU. Weights: Open Image Denoise, Apache 2.0; see docs/denoise.md.
 */
import { ALIGN_PX } from '../core/finishing/denoise/filter';
import { OnnxGraph } from './onnx';
import type { Tensor } from './weights';

export const INPUT = 'input';
export const OUTPUT = 'output';

// [convolutions down a level], ..., then up again: [convolutions], each after joining the upsampled value with the
// skip.
type Levels = readonly (readonly string[])[];
const PLAIN = {
  down: [['enc_conv0', 'enc_conv1'], ['enc_conv2'], ['enc_conv3'], ['enc_conv4'], ['enc_conv5a', 'enc_conv5b']],
  up: [
    ['dec_conv4a', 'dec_conv4b'],
    ['dec_conv3a', 'dec_conv3b'],
    ['dec_conv2a', 'dec_conv2b'],
    ['dec_conv1a', 'dec_conv1b', 'dec_conv0']
  ]
} as const;
const LARGE = {
  down: [
    ['enc_conv1a', 'enc_conv1b'],
    ['enc_conv2a', 'enc_conv2b'],
    ['enc_conv3a', 'enc_conv3b'],
    ['enc_conv4a', 'enc_conv4b'],
    ['enc_conv5a', 'enc_conv5b']
  ],
  up: [
    ['dec_conv4a', 'dec_conv4b'],
    ['dec_conv3a', 'dec_conv3b'],
    ['dec_conv2a', 'dec_conv2b'],
    ['dec_conv1a', 'dec_conv1b', 'dec_conv1c']
  ]
} as const;

export interface Network {
  model: Uint8Array;
  /** Channels of the input: colour, and what else guides it. */
  channels: number;
  /** How far its result looks, px. */
  reachPx: number;
}

/**
 * Each convolution sees a pixel of its own level farther; being halved, a pixel may lie anywhere in one of the lowest
 * level.
 */
function reachOf(down: Levels, up: Levels): number {
  const seen = (levels: Levels, levelOf: (i: number) => number) =>
    levels.reduce((sum, { length }, i) => sum + length * 2 ** levelOf(i), 0);
  const lowest = up.length;
  const px = seen(down, (i) => i) + seen(up, (i) => lowest - 1 - i) + 2 ** lowest - 1;
  return Math.ceil(px / ALIGN_PX) * ALIGN_PX;
}

export function buildNetwork(weights: Map<string, Tensor>): Network {
  const graph = new OnnxGraph();
  const unused = new Set(weights.keys());
  const take = (name: string): Tensor => {
    const tensor = weights.get(name);
    if (!tensor) throw new Error(`buildNetwork: expected a tensor ${name}, the file has none`);
    unused.delete(name);
    return tensor;
  };
  const channelsOf = new Map<string, number>();
  const { down, up } = weights.has('enc_conv1a.weight') ? LARGE : PLAIN;
  const first = take(`${down[0][0]}.weight`);
  channelsOf.set(INPUT, first.dims[1]!);
  graph.constant('twice', [4], Float32Array.from([1, 1, 2, 2]));

  const convolve = (from: string, name: string, to: string): string => {
    const weight = take(`${name}.weight`);
    const bias = take(`${name}.bias`);
    if (weight.layout !== 'oihw' || weight.dims[1] !== channelsOf.get(from))
      throw new Error(`buildNetwork: ${name} does not fit ${from}: ${weight.layout} ${weight.dims.join(' x ')}`);
    graph.constant(`${name}.weight`, weight.dims, weight.values);
    graph.constant(`${name}.bias`, bias.dims, bias.values);
    graph.node('Conv', [from, `${name}.weight`, `${name}.bias`], `${name}.sum`, {
      kernel_shape: [3, 3],
      pads: [1, 1, 1, 1]
    });
    channelsOf.set(to, weight.dims[0]!);
    return graph.node('Relu', [`${name}.sum`], to);
  };

  const skips: string[] = [];
  let at = INPUT;
  down.forEach((names, level) => {
    skips.push(level === 0 ? INPUT : at);
    for (const name of names) at = convolve(at, name, name);
    if (level === down.length - 1) return;
    const pooled = graph.node('MaxPool', [at], `pool${level + 1}`, { kernel_shape: [2, 2], strides: [2, 2] });
    channelsOf.set(pooled, channelsOf.get(at)!);
    at = pooled;
  });
  skips.pop(); // the lowest level has none
  up.forEach((names, i) => {
    const skip = skips.pop()!;
    const larger = graph.node('Resize', [at, '', 'twice'], `larger${i}`, {
      mode: 'nearest',
      coordinate_transformation_mode: 'asymmetric',
      nearest_mode: 'floor'
    });
    const joined = graph.node('Concat', [larger, skip], `joined${i}`, { axis: 1 });
    channelsOf.set(joined, channelsOf.get(at)! + channelsOf.get(skip)!);
    at = joined;
    names.forEach((name, k) => {
      at = convolve(at, name, i === up.length - 1 && k === names.length - 1 ? OUTPUT : name);
    });
  });
  if (unused.size > 0) throw new Error(`buildNetwork: tensors that no layer wants: ${[...unused].join(', ')}`);
  return { model: graph.model(INPUT, first.dims[1]!, OUTPUT), channels: first.dims[1]!, reachPx: reachOf(down, up) };
}
