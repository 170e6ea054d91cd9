/**
 * The isolated process that reads model files: started by import-model.ts with a memory limit, killed when it takes too
 * long. Reads one job as JSON from its argument, writes GLB and result beside each other, and ends.
 */
import { readFile, writeFile } from 'node:fs/promises';
import { normaliseModel } from '../../formats/gltf/normalise';
import { ModelRefused } from '../../formats/model-refused';
import type { ImportJob } from './import-model';

const job = JSON.parse(process.argv[2]!) as ImportJob;
const files = await Promise.all(
  job.files.map(async ({ name, path }) => ({ name, bytes: new Uint8Array(await readFile(path)) }))
);
try {
  const { glb, report } = await normaliseModel(files, job);
  await writeFile(`${job.out}.glb`, glb);
  await writeFile(`${job.out}.json`, JSON.stringify({ ok: true, report }));
} catch (error) {
  if (!(error instanceof ModelRefused)) throw error;
  await writeFile(`${job.out}.json`, JSON.stringify({ ok: false, code: error.code, message: error.message }));
}
process.exit(0);
