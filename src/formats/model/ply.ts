/** PLY, of text and of bytes: one mesh with what its vertices carry, without a unit or an axis. */
import { ModelRefused } from './model-refused';
import type { ModelFile, ModelReader, ReadModel } from './reader';

const isPly = (bytes: Uint8Array): boolean => /^ply\s/.test(Buffer.from(bytes.subarray(0, 8)).toString('latin1'));

export const ply: ModelReader = {
  key: 'ply',
  label: 'PLY',
  extensions: ['ply'],
  recognises: ({ name, bytes }) => isPly(bytes) || /\.ply$/i.test(name),
  states: {},
  read
};

async function read({ name, bytes }: ModelFile): Promise<ReadModel> {
  const [{ PLYLoader }, { ModelBuilder }] = await Promise.all([
    import('three/examples/jsm/loaders/PLYLoader.js'),
    import('./model-builder')
  ]);
  const head = Buffer.from(bytes.subarray(0, 65_536)).toString('latin1');
  const end = head.search(/^end_header\s*$/m);
  if (!isPly(bytes) || end < 0)
    throw new ModelRefused(
      'truncated',
      'this PLY is damaged: its head does not begin with "ply" or does not end; export it again'
    );
  const faces = Number(/^element\s+face\s+(\d+)/m.exec(head.slice(0, end))?.[1] ?? 0);
  if (faces === 0)
    throw new ModelRefused(
      'no_surface',
      'this PLY holds points and no faces: a cloud of points has no surface to be rendered; make a mesh of it first'
    );
  const geometry = new PLYLoader().parse(Uint8Array.from(bytes).buffer);
  const of = (attribute: string) => {
    const found = geometry.getAttribute(attribute);
    return found && found.count > 0 ? Float32Array.from(found.array) : null;
  };
  const positions = of('position');
  const indices = geometry.index ? Uint32Array.from(geometry.index.array) : null;
  if (!positions || (indices?.length ?? positions.length / 3) < 3)
    throw new ModelRefused('truncated', 'this PLY is cut off: its faces are missing; export it again');
  const builder = new ModelBuilder();
  const colors = of('color');
  const material = builder.document
    .createMaterial('Surface')
    .setBaseColorFactor(colors ? [1, 1, 1, 1] : [0.6, 0.6, 0.6, 1])
    .setRoughnessFactor(0.6)
    .setMetallicFactor(0)
    .setDoubleSided(true);
  const normals = of('normal');
  const mesh = builder.mesh(name, [{ positions, normals, uv: of('uv'), colors, indices, material }]);
  if (mesh) builder.node(name.slice(name.lastIndexOf('/') + 1).replace(/\.[^.]*$/, '')).setMesh(mesh);
  return {
    document: builder.document,
    format: 'PLY',
    source: name,
    changed: normals ? [] : ['Normals were made: the file has none'],
    missing: []
  };
}
