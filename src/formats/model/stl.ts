/** STL, of text and of bytes: triangles alone, without a unit or an axis. */
import { ModelRefused } from './model-refused';
import type { ModelFile, ModelReader, ReadModel } from './reader';

const HEADER_BYTES = 84;
const TRIANGLE_BYTES = 50;

const isBinary = (bytes: Uint8Array): boolean => {
  if (bytes.length < HEADER_BYTES) return false;
  const count = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(80, true);
  return HEADER_BYTES + count * TRIANGLE_BYTES === bytes.length;
};
const isText = (bytes: Uint8Array): boolean =>
  /^\s*solid\b/.test(Buffer.from(bytes.subarray(0, 64)).toString('latin1'));

export const stl: ModelReader = {
  key: 'stl',
  label: 'STL',
  extensions: ['stl'],
  recognises: ({ name, bytes }) => /\.stl$/i.test(name) || isBinary(bytes),
  states: {},
  read
};

async function read({ name, bytes }: ModelFile): Promise<ReadModel> {
  const [{ STLLoader }, { ModelBuilder }] = await Promise.all([
    import('three/examples/jsm/loaders/STLLoader.js'),
    import('./model-builder')
  ]);
  if (!isBinary(bytes) && !isText(bytes))
    throw new ModelRefused(
      'truncated',
      bytes.length < HEADER_BYTES
        ? `this STL is cut off: it holds ${bytes.length} bytes, and its head alone is ${HEADER_BYTES}; export it again`
        : 'this STL is cut off or damaged: its length is not that of the triangles that it counts; export it again'
    );
  // the loader reads the count at byte 80 of every file; a text shorter than the head cannot state a triangle
  const geometry = bytes.length < HEADER_BYTES ? null : new STLLoader().parse(Uint8Array.from(bytes).buffer);
  const positions = geometry?.getAttribute('position')?.array as Float32Array | undefined;
  if (!geometry || !positions || positions.length < 9)
    throw new ModelRefused('no_surface', 'this STL holds no triangle; export the model again');
  const builder = new ModelBuilder();
  const material = builder.document
    .createMaterial('Surface')
    .setBaseColorFactor([0.6, 0.6, 0.6, 1])
    .setRoughnessFactor(0.6)
    .setMetallicFactor(0)
    .setDoubleSided(true);
  const color = geometry.getAttribute('color')?.array as Float32Array | undefined;
  const mesh = builder.mesh(name, [
    { positions: positions.subarray(0, positions.length - (positions.length % 9)), colors: color ?? null, material }
  ]);
  if (mesh) builder.node(name.slice(name.lastIndexOf('/') + 1).replace(/\.[^.]*$/, '')).setMesh(mesh);
  return {
    document: builder.document,
    format: isBinary(bytes) ? 'STL' : 'STL (text)',
    source: name,
    changed: ['Edges sharper than 35 degrees stay edges, others are smooth: the format has no normals of its own'],
    missing: []
  };
}
