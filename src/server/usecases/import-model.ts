/** Model files to a normalised GLB and its report, in a process of its own with limits on time and memory. */
import { spawn } from 'node:child_process';
import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { LengthUnit } from '../../core/units/units';
import type { ImportReport } from '../../formats/import-report';
import type { ModelRefusal } from '../../formats/model-refused';
import { config } from '../config';

export interface ImportJob {
  files: { name: string; path: string }[];
  unit: LengthUnit;
  up: 'y' | 'z';
  mostBytes: number;
  out: string;
}

export type ImportResult =
  | { ok: true; glb: Uint8Array; report: ImportReport }
  | { ok: false; code: ModelRefusal; message: string };

export async function importModel(input: {
  files: { name: string; path: string }[];
  unit: LengthUnit;
  up: 'y' | 'z';
}): Promise<ImportResult> {
  let total = 0;
  for (const file of input.files) {
    const size = await stat(file.path).then(
      (s) => (s.isFile() ? s.size : null),
      () => null
    );
    if (size === null) return { ok: false, code: 'missing_file', message: 'the file cannot be read; check its name' };
    total += size;
  }
  if (total > config.maxUploadBytes)
    return {
      ok: false,
      code: 'too_large',
      message: `the file is ${Math.round(total / 2 ** 20)} MB; at most ${Math.round(config.maxUploadBytes / 2 ** 20)} MB can be brought in`
    };
  if (total === 0) return { ok: false, code: 'not_a_model', message: 'the file is empty; export the model again' };
  const folder = await mkdtemp(join(tmpdir(), 'sphaera-import-'));
  try {
    const out = join(folder, 'model');
    const job: ImportJob = {
      files: input.files.map(({ name, path }) => ({ name: input.files.length === 1 ? basename(name) : name, path })),
      unit: input.unit,
      up: input.up,
      mostBytes: config.maxUnpackedBytes,
      out
    };
    const ended = await runIsolated(job);
    if (ended === 'timeout')
      return {
        ok: false,
        code: 'timeout',
        message:
          `reading the file took longer than ${Math.round(config.importTimeoutMs / 1000)} s and was ` +
          `stopped; export it coarser or in parts`
      };
    const result = await readFile(`${out}.json`, 'utf8').then(
      (text) =>
        JSON.parse(text) as { ok: true; report: ImportReport } | { ok: false; code: ModelRefusal; message: string },
      () => null
    );
    if (!result)
      return /heap|memory/i.test(ended)
        ? {
            ok: false,
            code: 'memory',
            message: 'the file needs more memory than is allowed; export it coarser or in parts'
          }
        : {
            ok: false,
            code: 'truncated',
            message: 'the file made our reader stumble; export it again or in another form'
          };
    if (!result.ok) return result;
    return { ...result, glb: new Uint8Array(await readFile(`${out}.glb`)) };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Runs the reader to its end; returns what it said on standard error, or 'timeout'. */
function runIsolated(job: ImportJob): Promise<string> {
  return new Promise((resolve, reject) => {
    const child = spawn(
      process.execPath,
      [`--max-old-space-size=${config.importMemoryMb}`, config.built('import-worker.mjs'), JSON.stringify(job)],
      {
        cwd: config.root,
        stdio: ['ignore', 'ignore', 'pipe'],
        env: config.childEnvironment
      }
    );
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString()).slice(-4000);
    });
    const timer = setTimeout(() => {
      child.kill('SIGKILL');
      resolve('timeout');
    }, config.importTimeoutMs);
    child.on('error', reject);
    child.on('exit', () => {
      clearTimeout(timer);
      resolve(said);
    });
  });
}
