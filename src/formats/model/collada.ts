/** COLLADA 1.4 and 1.5 (Khronos, ISO/PAS 17506): the file says its unit and its axis. A .zae is a ZIP of one. */
import { plainPrimitives } from './collada-primitives';
import { ModelRefused } from './model-refused';
import { type ModelFile, type ModelFiles, type ModelReader, PICTURES, type ReadModel } from './reader';
import { readText, refuseDeepXml } from './read-text';

const isCollada = (bytes: Uint8Array) => /<COLLADA[\s>]/.test(readText(bytes.subarray(0, 4096)));

export const collada: ModelReader = {
  key: 'collada',
  label: 'COLLADA',
  extensions: ['dae', 'zae'],
  recognises: ({ name, bytes }) => /\.dae$/i.test(name) || isCollada(bytes),
  states: { unit: 'm', up: 'y' },
  comesWith: PICTURES,
  read
};

async function read({ name, bytes }: ModelFile, files: ModelFiles): Promise<ReadModel> {
  if (!isCollada(bytes))
    throw new ModelRefused('not_a_model', 'this file is named as COLLADA and does not begin as one; export it again');
  const [{ ColladaLoader }, { withoutPage }, { readThree }] = await Promise.all([
    import('three/examples/jsm/loaders/ColladaLoader.js'),
    import('./without-page'),
    import('./three-materials')
  ]);
  const written = readText(bytes);
  // some programs write the unit with their language's comma
  const text = written.replace(/(<unit\b[^>]*\bmeter\s*=\s*["']\d*),(\d)/, '$1.$2');
  if (!/<\/COLLADA\s*>\s*$/.test(text.slice(-1000)))
    throw new ModelRefused('truncated', 'this COLLADA file is cut off: its end is missing; export it again');
  refuseDeepXml(text, 'COLLADA');
  const plain = plainPrimitives(text);
  const loaded = await withoutPage(() => {
    const found = new ColladaLoader().parse(plain.text, '');
    if (!found) throw new ModelRefused('truncated', 'this COLLADA file is damaged: it is no XML; export it again');
    return found.scene;
  });
  const changed =
    plain.holes > 0 ? [`Holes in ${plain.holes} polygons were filled; export triangles to keep them`] : [];
  return readThree({ format: 'COLLADA', source: name, files, loaded, changed });
}
