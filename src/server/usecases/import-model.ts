/** Model files to a normalised GLB and its report, in a process of its own with limits on time and memory. */
import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { type Refused, type Result, ok, refused } from '../../core/result/result';
import type { LengthUnit } from '../../core/units/units';
import type { ImportReport } from '../../formats/import-report';
import { config } from '../config';
import { runTask } from '../jobs/run-task';

export interface ImportInput {
  files: { name: string; path: string }[];
  unit: LengthUnit;
  up: 'y' | 'z';
}

const megabytes = (bytes: number) => Math.round(bytes / 2 ** 20);

export async function importModel({
  files,
  unit,
  up
}: ImportInput): Promise<Result<{ glb: Uint8Array; report: ImportReport }>> {
  let total = 0;
  for (const file of files) {
    const size = await stat(file.path).then(
      (s) => (s.isFile() ? s.size : null),
      () => null
    );
    if (size === null) return refused('the file cannot be read; check its name', 'missing_file');
    total += size;
  }
  const max = config.maxUploadBytes;
  if (total > max)
    return refused(`the file is ${megabytes(total)} MB; at most ${megabytes(max)} MB can be brought in`, 'too_large');
  if (total === 0) return refused('the file is empty; export the model again', 'not_a_model');
  const folder = await mkdtemp(join(tmpdir(), 'sphaera-import-'));
  try {
    const out = join(folder, 'model.glb');
    const input = {
      files: files.map(({ name, path }) => ({ name: files.length === 1 ? basename(name) : name, path })),
      unit,
      up,
      maxBytes: config.maxUnpackedBytes,
      out
    };
    const limits = { maxSeconds: config.importTimeoutMs / 1000, maxMemoryMb: config.importMemoryMb };
    const read = await runTask('import', input, limits);
    if (!read.ok) return explained(read);
    return ok({ glb: new Uint8Array(await readFile(out)), report: read.value.report as ImportReport });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What to do about the refusals that the runner makes. */
function explained({ code, message }: Refused): Refused {
  if (code === 'timeout' || code === 'memory') return refused(`${message}; export the model coarser or in parts`, code);
  if (code === 'crashed' || code === 'fault')
    return refused('the reader failed on this file; export it again or in another format', 'truncated');
  return refused(message, code);
}
