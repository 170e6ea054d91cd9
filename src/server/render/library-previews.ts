/**
 * Renders the little scene under each of the library's surroundings, once at build: node build/library-previews.mjs
 * FOLDER.
 */
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { SURROUNDINGS_LIBRARY } from '../../core/brief/surroundings-library';
import { loadKernel } from './kernel-file';
import { previewOf } from './surroundings-preview';

const folder = process.argv[2]!;
await mkdir(folder, { recursive: true });
const module = await loadKernel();
for (const { key, surroundings } of SURROUNDINGS_LIBRARY)
  await writeFile(join(folder, `${key}.png`), await previewOf(surroundings, null, module));
