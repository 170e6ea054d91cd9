/**
 * Writes the few parts of an ONNX model that a convolutional network needs, as protocol buffers. Source: onnx.proto, IR
 * version 8, opset 13.
 */
const encoder = new TextEncoder();

function join(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

function varint(value: number): Uint8Array {
  const out: number[] = [];
  for (let rest = value; ; rest = Math.floor(rest / 128)) {
    if (rest < 128) return Uint8Array.from([...out, rest]);
    out.push((rest % 128) | 128);
  }
}

const integer = (field: number, value: number) => join([varint(field * 8), varint(value)]);
const bytes = (field: number, value: Uint8Array) => join([varint(field * 8 + 2), varint(value.length), value]);
const text = (field: number, value: string) => bytes(field, encoder.encode(value));
const message = (field: number, ...parts: Uint8Array[]) => bytes(field, join(parts));

const FLOAT = 1;
const INT_ATTRIBUTE = 2;
const TEXT_ATTRIBUTE = 3;
const INTS_ATTRIBUTE = 7;

export type Attribute = number | string | readonly number[];

function attribute(name: string, value: Attribute): Uint8Array {
  if (typeof value === 'number') return message(5, text(1, name), integer(3, value), integer(20, INT_ATTRIBUTE));
  if (typeof value === 'string') return message(5, text(1, name), text(4, value), integer(20, TEXT_ATTRIBUTE));
  return message(5, text(1, name), ...value.map((v) => integer(8, v)), integer(20, INTS_ATTRIBUTE));
}

/**
 * Collects nodes and constants, then gives the model's bytes. Values are named; sizes of input and output stay open.
 */
export class OnnxGraph {
  private readonly nodes: Uint8Array[] = [];
  private readonly constants: Uint8Array[] = [];

  node(
    op: string,
    inputs: readonly string[],
    output: string,
    attributes: Readonly<Record<string, Attribute>> = {}
  ): string {
    this.nodes.push(
      message(
        1,
        ...inputs.map((name) => text(1, name)),
        text(2, output),
        text(3, output),
        text(4, op),
        ...Object.entries(attributes).map(([name, value]) => attribute(name, value))
      )
    );
    return output;
  }

  constant(name: string, dims: readonly number[], values: Float32Array): string {
    this.constants.push(
      message(
        5,
        bytes(1, join(dims.map(varint))),
        integer(2, FLOAT),
        text(8, name),
        bytes(9, new Uint8Array(values.buffer, values.byteOffset, values.byteLength))
      )
    );
    return name;
  }

  /** The model with one input of `channels` and one output of three channels, both NCHW of any height and width. */
  model(input: string, channels: number, output: string): Uint8Array {
    const size = (value: number | string) => message(1, typeof value === 'string' ? text(2, value) : integer(1, value));
    const value = (field: number, name: string, dims: readonly (number | string)[]) =>
      message(field, text(1, name), message(2, message(1, integer(1, FLOAT), message(2, ...dims.map(size)))));
    const graph = message(
      7,
      ...this.nodes,
      text(2, 'filter'),
      ...this.constants,
      value(11, input, [1, channels, 'h', 'w']),
      value(12, output, [1, 3, 'oh', 'ow'])
    );
    return join([integer(1, 8), text(2, 'sphaera'), graph, message(8, text(1, ''), integer(2, 13))]);
  }
}
