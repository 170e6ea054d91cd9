/** Small GLB files for tests, good and bad. */
import { Document, NodeIO } from '@gltf-transform/core';

export async function boxGlb({
  size = 1,
  name = 'box',
  positions
}: {
  size?: number;
  name?: string;
  positions?: Float32Array;
} = {}): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const h = size / 2;
  const corners =
    positions ??
    Float32Array.from([-h, -h, -h, h, -h, -h, h, h, -h, -h, h, -h, -h, -h, h, h, -h, h, h, h, h, -h, h, h]);
  const indices = Uint16Array.from([
    0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7, 0, 1, 5, 0, 5, 4, 3, 7, 6, 3, 6, 2, 0, 4, 7, 0, 7, 3, 1, 2, 6, 1, 6, 5
  ]);
  const primitive = document
    .createPrimitive()
    .setAttribute(
      'POSITION',
      document
        .createAccessor()
        .setType('VEC3')
        .setArray(corners as never)
        .setBuffer(buffer)
    )
    .setIndices(
      document
        .createAccessor()
        .setType('SCALAR')
        .setArray(indices as never)
        .setBuffer(buffer)
    )
    .setMaterial(
      document
        .createMaterial('paint')
        .setBaseColorFactor([0.7, 0.3, 0.2, 1])
        .setMetallicFactor(0)
        .setRoughnessFactor(0.5)
    );
  document.createScene().addChild(document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive)));
  return new NodeIO().writeBinary(document);
}

/** A GLB around any JSON, without a binary chunk. */
export function rawGlb(json: object): Uint8Array {
  const text = Buffer.from(JSON.stringify(json));
  const padded = Buffer.concat([text, Buffer.alloc((4 - (text.length % 4)) % 4, 0x20)]);
  const out = Buffer.alloc(20 + padded.length);
  out.write('glTF', 0, 'latin1');
  out.writeUInt32LE(2, 4);
  out.writeUInt32LE(out.length, 8);
  out.writeUInt32LE(padded.length, 12);
  out.write('JSON', 16, 'latin1');
  padded.copy(out, 20);
  return out;
}
