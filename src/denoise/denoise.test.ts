import { describe, expect, it } from 'vitest';
import { buildNetwork } from './network';
import { createNodeFilter } from './node-filter';
import { readWeights } from './weights';

interface Made {
  name: string;
  dims: number[];
  layout: string;
  values: number[];
}

/** An archive as the filter's weights come in, of 32-bit floats. */
function archive(tensors: readonly Made[]): Uint8Array {
  const blobs = tensors.reduce((sum, t) => sum + t.values.length * 4, 0);
  const table =
    4 + tensors.reduce((sum, t) => sum + 2 + t.name.length + 1 + 4 * t.dims.length + t.layout.length + 1 + 8, 0);
  const bytes = new Uint8Array(12 + blobs + table);
  const view = new DataView(bytes.buffer);
  view.setUint16(0, 0x41d7, true);
  view.setUint8(2, 2);
  view.setBigUint64(4, BigInt(12 + blobs), true);
  let blob = 12;
  let at = 12 + blobs;
  view.setUint32(at, tensors.length, true);
  at += 4;
  const text = (s: string) => {
    for (const c of s) bytes[at++] = c.charCodeAt(0);
  };
  for (const t of tensors) {
    view.setUint16(at, t.name.length, true);
    at += 2;
    text(t.name);
    bytes[at++] = t.dims.length;
    for (const d of t.dims) {
      view.setUint32(at, d, true);
      at += 4;
    }
    text(`${t.layout}f`);
    view.setBigUint64(at, BigInt(blob), true);
    at += 8;
    for (const v of t.values) {
      view.setFloat32(blob, v, true);
      blob += 4;
    }
  }
  return bytes;
}

type Layer = readonly [name: string, from: number, to: number];
/** `channels`: of the input, which the last level sees beside four planes from below. */
const plainLayers = (channels: number): Layer[] => [
  ['enc_conv0', channels, 4],
  ['enc_conv1', 4, 4],
  ['enc_conv2', 4, 4],
  ['enc_conv3', 4, 4],
  ['enc_conv4', 4, 4],
  ['enc_conv5a', 4, 4],
  ['enc_conv5b', 4, 4],
  ['dec_conv4a', 8, 4],
  ['dec_conv4b', 4, 4],
  ['dec_conv3a', 8, 4],
  ['dec_conv3b', 4, 4],
  ['dec_conv2a', 8, 4],
  ['dec_conv2b', 4, 4],
  ['dec_conv1a', 4 + channels, 4],
  ['dec_conv1b', 4, 4],
  ['dec_conv0', 4, 3]
];
const largeLayers: Layer[] = [
  ...[1, 2, 3, 4, 5].flatMap((level): Layer[] => [
    [`enc_conv${level}a`, level === 1 ? 9 : 4, 4],
    [`enc_conv${level}b`, 4, 4]
  ]),
  ...[4, 3, 2].flatMap((level): Layer[] => [
    [`dec_conv${level}a`, 8, 4],
    [`dec_conv${level}b`, 4, 4]
  ]),
  ['dec_conv1a', 13, 4],
  ['dec_conv1b', 4, 4],
  ['dec_conv1c', 4, 3]
];

/**
 * A network whose last stage hands the first three input planes through, `lift` more in each than in the one before:
 * the skip of the input comes after the four planes from below.
 */
const handsThrough = (layers: readonly Layer[], lift: number) =>
  layers.flatMap(([name, from, to], at) => {
    const weights = Array.from({ length: to * from * 9 }, (_, i) => {
      const o = Math.floor(i / (from * 9));
      const k = Math.floor(i / 9) % from;
      const wanted = name === 'dec_conv1a' ? k === o + 4 && o < 3 : k === o;
      return wanted && i % 9 === 4 ? 1 : 0;
    });
    return [
      { name: `${name}.weight`, dims: [to, from, 3, 3], layout: 'oihw', values: weights },
      {
        name: `${name}.bias`,
        dims: [to],
        layout: 'x',
        values: Array.from({ length: to }, (_, o) => (at === layers.length - 1 ? o * lift : 0))
      }
    ];
  });
const passThrough = handsThrough(plainLayers(9), 1);
const numbers = (length: number) => Float32Array.from({ length }, (_, i) => ((i * 37) % 101) / 101);

describe('the learned filter', () => {
  it('reads an archive of tensors and says what is wrong with another', () => {
    const read = readWeights(
      archive([
        { name: 'a.weight', dims: [2, 1, 1, 1], layout: 'oihw', values: [0.5, -2] },
        { name: 'a.bias', dims: [2], layout: 'x', values: [1, 3] }
      ])
    );
    expect([...read.get('a.weight')!.values]).toEqual([0.5, -2]);
    expect(read.get('a.bias')).toMatchObject({ dims: [2], layout: 'x' });
    expect(() => readWeights(new Uint8Array(100))).toThrow('expected a tensor archive');
    const old = archive([]);
    old[2] = 1;
    expect(() => readWeights(old)).toThrow('expected version 2, got 1');
    const cut = archive([{ name: 'a', dims: [1e6], layout: 'x', values: [1] }]);
    expect(() => readWeights(cut)).toThrow('a: lies beyond the end');
  });

  it('makes of it a model that ONNX Runtime runs: known weights give known values at any size', async () => {
    const filter = await createNodeFilter(archive(passThrough), 1);
    expect(filter.channels).toBe(9);
    for (const [height, width] of [
      [16, 32],
      [48, 16]
    ] as const) {
      const input = numbers(9 * height * width);
      const output = await filter.run(input, height, width);
      expect(output).toHaveLength(3 * height * width);
      for (let i = 0; i < output.length; i++)
        expect(output[i]).toBeCloseTo(input[i]! + Math.floor(i / (height * width)), 5);
    }
  });

  it('knows how far each network looks by its layers', async () => {
    // 2 + 2 + 4 + 8 + 32 px down, 16 + 8 + 4 + 3 up and 15 by halving, in steps of 16
    expect(buildNetwork(readWeights(archive(passThrough))).reachPx).toBe(96);
    // with two convolutions a level 14 px more
    expect(buildNetwork(readWeights(archive(handsThrough(largeLayers, 1)))).reachPx).toBe(112);
  });

  it('runs the larger network, and clears its guides by networks of their own', async () => {
    const guide = (lift: number) => archive(handsThrough(plainLayers(3), lift));
    const filter = await createNodeFilter(archive(handsThrough(largeLayers, 0)), 1, {
      reflectance: guide(1),
      normal: guide(10)
    });
    const [height, width] = [16, 32];
    const plane = height * width;
    const input = numbers(9 * plane);
    expect((await filter.run(input, height, width))[plane + 5]).toBeCloseTo(input[plane + 5]!, 5);
    const features = numbers(6 * plane);
    const clear = await filter.clarify!.run(features, height, width);
    expect(filter.clarify!.reachPx).toBe(96);
    for (let c = 0; c < 6; c++)
      expect(clear[c * plane + 7]).toBeCloseTo(features[c * plane + 7]! + (c < 3 ? c : (c - 3) * 10), 4);
  });

  it('refuses weights that lack a layer, have one too many, or do not fit', () => {
    const of = (tensors: readonly Made[]) => () => buildNetwork(readWeights(archive(tensors)));
    expect(of(passThrough.filter((t) => t.name !== 'dec_conv2b.bias'))).toThrow('expected a tensor dec_conv2b.bias');
    expect(of([...passThrough, { name: 'more.bias', dims: [1], layout: 'x', values: [0] }])).toThrow(
      'tensors that no layer wants: more.bias'
    );
    expect(of(passThrough.map((t) => (t.name === 'enc_conv2.weight' ? { ...t, dims: [4, 3, 3, 3] } : t)))).toThrow(
      'enc_conv2 does not fit pool1'
    );
  });
});
