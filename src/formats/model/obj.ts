/** OBJ with its material library (.mtl): neither says a unit or an axis. */
import type { ModelFile, ModelFiles, ModelReader, ReadModel } from './reader';
import { readText } from './read-text';
import { PICTURES } from './reader';
import type { MtlEntry } from './mtl';
import { ModelRefused } from './model-refused';

export const obj: ModelReader = {
  key: 'obj',
  label: 'OBJ',
  extensions: ['obj'],
  recognises: ({ name }) => /\.obj$/i.test(name),
  states: {},
  comesWith: ['mtl', ...PICTURES],
  read
};

async function read(main: ModelFile, files: ModelFiles): Promise<ReadModel> {
  const [{ OBJLoader }, { threeDocument }, { makeMaterial, parseMtl }, { findBeside }] = await Promise.all([
    import('three/examples/jsm/loaders/OBJLoader.js'),
    import('./three-document'),
    import('./mtl'),
    import('./beside')
  ]);
  const text = readText(main.bytes);
  if (!/^\s*v\s/m.test(text))
    throw new ModelRefused('no_surface', 'this OBJ holds no vertices: it is empty or cut off; export the model again');
  const [changed, missing, missingFiles]: [string[], string[], string[]] = [[], [], []];
  const entries = new Map<string, MtlEntry>();
  for (const [, library] of text.matchAll(/^\s*mtllib\s+(.+?)\s*$/gm)) {
    const bytes = findBeside(files, main.name, library!);
    if (!bytes) {
      missingFiles.push(library!.slice(0, 120));
      continue;
    }
    for (const [name, entry] of parseMtl(readText(bytes))) entries.set(name, entry);
  }
  const group = new OBJLoader().parse(text);
  if (!/^\s*vn\s/m.test(text))
    group.traverse(
      (object) =>
        'geometry' in object && (object.geometry as { deleteAttribute(n: string): void }).deleteAttribute('normal')
    );
  const wanted = new Map<string, import('@gltf-transform/core').Material>();
  const { builder, skipped } = threeDocument(group, {
    material: ({ name }, { document }) => {
      const made = wanted.get(name) ?? document.createMaterial(name).setDoubleSided(true).setMetallicFactor(0);
      wanted.set(name, made);
      return made;
    }
  });
  const context = { builder, files, main: main.name, missing, missingFiles, textures: new Map() };
  for (const [name, placeholder] of wanted) {
    const entry = entries.get(name);
    placeholder.setBaseColorFactor([0.6, 0.6, 0.6, 1]).setRoughnessFactor(0.8);
    if (!entry) continue;
    placeholder.copy(await makeMaterial(name, entry, context));
  }
  if (skipped) missing.push(`${skipped} parts made of points were left out: they have no surface`);
  if (builder.creased) changed.push(`Normals were made for ${builder.creased} parts that had none`);
  return {
    document: builder.document,
    format: 'OBJ',
    source: main.name,
    changed,
    missing,
    missing_files: missingFiles
  };
}
