/** Compares the objects of two revisions of a model. */
import { readFile } from 'node:fs/promises';
import { matchObjects } from '../../core/scene/match-objects';
import { listObjects } from '../../formats/gltf/list-objects';
import { contentPath } from '../files/content-store';
import { serveTask } from '../jobs/serve-task';

const objectsOf = async (model: string) => listObjects(new Uint8Array(await readFile(contentPath('models', model))));

serveTask('compare', async ({ before, after }) => matchObjects(await objectsOf(before), await objectsOf(after)));
