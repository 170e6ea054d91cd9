/** The catalogue of model readers. One line a format; chooser, drop, messages and command follow. */
import { unpackZip } from '../zip';
import { collada } from './collada';
import { gltf } from './gltf';
import { ifc } from './ifc';
import { obj } from './obj';
import { ply } from './ply';
import { iges, step } from './solids';
import { stl } from './stl';
import { threeMf } from './three-mf';
import { usd } from './usd';
import { ModelRefused } from './model-refused';
import type { ModelFile, ModelFiles, ModelReader, ReadModel, ReadOptions } from './reader';

export const READERS: readonly ModelReader[] = [gltf, ifc, step, iges, collada, usd, threeMf, obj, stl, ply];

/** "glTF (.glb, .gltf)" */
export const formatsText = (): string =>
  READERS.map(({ label, extensions }) => `${label} (${extensions.map((e) => `.${e}`).join(', ')})`).join(', ');

/** "glTF, IFC" */
export const formatNames = (): string => READERS.map(({ label }) => label).join(', ');

/** For a file chooser: ".glb,.gltf,.zip". Files that go with a model have other endings, so none is refused by it. */
export const modelExtensions = (): string[] => [...READERS.flatMap((r) => r.extensions), 'zip'];

export interface Recognised {
  reader: ModelReader;
  main: ModelFile;
  files: ModelFiles;
}

const isZip = ({ bytes }: ModelFile) => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Finds the model among files that came together, or in a ZIP of them. `maxBytes`: of what a ZIP may unpack to. */
export function recognise(given: readonly ModelFile[], maxBytes: number): Recognised {
  const files =
    given.length === 1 && isZip(given[0]!)
      ? unpackZip(given[0]!.bytes, maxBytes)
      : // a ZIP of files with others beside it, as when one that it lacked was added
        new Map(
          given.flatMap((file) =>
            isZip(file) && /\.zip$/i.test(file.name)
              ? [...unpackZip(file.bytes, maxBytes)]
              : [[file.name, file.bytes] as const]
          )
        );
  if (given.length === 1 && isZip(given[0]!)) {
    const names = [...files.keys()];
    const reader = READERS.find((one) => one.recognisesArchive?.(names));
    if (reader) return { reader, main: given[0]!, files };
  }
  const all = [...files].map(([name, bytes]): ModelFile => ({ name, bytes }));
  for (const reader of READERS) {
    const main = all.find((file) => reader.recognises(file));
    if (main) return { reader, main, files };
  }
  if (all.length === 1)
    throw new ModelRefused(
      'not_a_model',
      `this file cannot be read as a model; export it as ${formatsText()} and bring that in`
    );
  const names = all.slice(0, 5).map((file) => file.name);
  throw new ModelRefused(
    'not_a_model',
    `there is no model among these files (${names.join(', ')}); bring in ${formatsText()} with its files, or a ZIP of them`
  );
}

/** The readers that may read a file of this name, to find what belongs to it. */
export const readerOf = (name: string): ModelReader | null =>
  READERS.find(({ extensions }) => extensions.includes(name.slice(name.lastIndexOf('.') + 1).toLowerCase())) ?? null;

export async function readModel(
  { reader, main, files }: Recognised,
  options: ReadOptions = { fineness: 'medium' }
): Promise<ReadModel> {
  try {
    return await reader.read(main, files, options);
  } catch (error) {
    if (error instanceof ModelRefused) throw error;
    // what a library says of a damaged file is for the log
    console.error(error);
    throw new ModelRefused(
      'truncated',
      `this ${reader.label} file is damaged or cut off inside its data; export it again`
    );
  }
}
