/** What a reader of a model format is. Each format is a file of this folder, named in index.ts. */
import type { Document } from '@gltf-transform/core';
import type { Fineness } from '../../core/units/read-as';
import type { LengthUnit } from '../../core/units/units';

export interface ModelFile {
  /** With the folders that it was dropped with: "chair/textures/oak.png". Never a path on this machine. */
  name: string;
  bytes: Uint8Array;
}

/** The files that came together, by their names. */
export type ModelFiles = ReadonlyMap<string, Uint8Array>;

/** A model as every reader hands it on. */
export interface ReadModel {
  /** In the file's own unit and with its own axis up. */
  document: Document;
  /** "GLB" */
  format: string;
  /** Name of the main file. */
  source: string;
  /** Sentences: what was made or changed, and what could not be brought in. The next steps add theirs. */
  changed: string[];
  missing: string[];
  /** Names of files that the model asks for and that did not come with it. */
  missing_files?: string[];
}

export interface ReadOptions {
  fineness: Fineness;
}

export interface ModelReader {
  key: string;
  /** As people call it: "glTF". */
  label: string;
  /** Of the main file, without the dot. */
  extensions: readonly string[];
  /** Whether a file is of this format, by its bytes where they tell, else by its name. */
  recognises(file: ModelFile): boolean;
  /** Whether a ZIP with these names in it is itself a file of the format, and no folder of files. */
  recognisesArchive?(names: readonly string[]): boolean;
  /** What the format says of every file of it; what it does not say is asked. */
  states: { unit?: LengthUnit; up?: 'y' | 'z' };
  /** Endings of files that belong to such a model, which the command takes from beside it. */
  comesWith?: readonly string[];
  /** Whether it holds solids that are meshed on the way in, at a fineness. */
  meshed?: boolean;
  read(main: ModelFile, files: ModelFiles, options: ReadOptions): Promise<ReadModel>;
}

/** Endings of pictures that go with models. */
export const PICTURES = ['png', 'jpg', 'jpeg', 'webp', 'tif', 'tiff', 'gif', 'bmp', 'tga'] as const;
