/**
 * Renders the little scene under surroundings that a user has kept: node build/light-preview-worker.mjs
 * SURROUNDINGS_AS_JSON OUT.
 */
import { writeFile } from 'node:fs/promises';
import { readSurroundings } from '../../core/brief/read-brief';
import type { Surroundings } from '../../core/brief/brief';
import { readCapturedOf } from './captured-file';
import { loadKernel } from './kernel-file';
import { previewOf } from './surroundings-preview';

const surroundings = readSurroundings(JSON.parse(process.argv[2]!) as Surroundings);
const captured = await readCapturedOf(surroundings);
await writeFile(process.argv[3]!, await previewOf(surroundings, captured, await loadKernel()));
