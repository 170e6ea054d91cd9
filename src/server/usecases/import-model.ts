/** Model files, read in a process of its own with limits on time and memory. */
import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { type Refused, type Result, ok, refused } from '../../core/result/result';
import { DEFAULT_REPAIRS, type Repair } from '../../core/scene/health';
import type { Fineness, ReadAs } from '../../core/units/read-as';
import type { LengthUnit } from '../../core/units/units';
import type { ImportReport } from '../../formats/model/import-report';
import type { Recognition } from '../../formats/model/recognition';
import { config } from '../config';
import { runTask } from '../jobs/run-task';
import { type TaskInput, type TaskResult, unrepairedBeside } from '../jobs/tasks';

export interface FileOnDisk {
  name: string;
  path: string;
}

export interface ImportedModel {
  glb: Uint8Array;
  /** Before its repairs, in the file's own unit; null where nothing can be repaired. */
  unrepaired: Uint8Array | null;
  report: ImportReport;
}

/** To a normalised GLB and its report. A unit or axis that is null is what the format states. */
export async function importModel({
  files,
  unit,
  up,
  from = null,
  fineness = 'medium',
  repairs = DEFAULT_REPAIRS,
  signal
}: {
  files: FileOnDisk[];
  unit: LengthUnit | null;
  up: 'y' | 'z' | null;
  /** What a model of ours had been read as, which is to be read as another. */
  from?: ReadAs | null;
  /** Of solids. */
  fineness?: Fineness;
  repairs?: readonly Repair[];
  /** Ends the reader when whoever asked has left. */
  signal?: AbortSignal | undefined;
}): Promise<Result<ImportedModel>> {
  const folder = await mkdtemp(join(tmpdir(), 'sphaera-import-'));
  try {
    const out = join(folder, 'model.glb');
    const read = await readFiles(files, { unit, up, from, fineness, repairs, out }, signal);
    if (!read.ok) return read;
    const { report, unrepaired } = read.value;
    return ok({
      glb: new Uint8Array(await readFile(out)),
      unrepaired: unrepaired ? new Uint8Array(await readFile(unrepairedBeside(out))) : null,
      report: report as ImportReport
    });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What a file is, how large in its own unit, and what has to be asked before it is brought in. */
export async function recogniseModel(files: FileOnDisk[], signal?: AbortSignal): Promise<Result<Recognition>> {
  const read = await readFiles(files, null, signal);
  return read.ok ? ok(read.value.recognition as Recognition) : read;
}

const megabytes = (bytes: number) => Math.round(bytes / 2 ** 20);

async function readFiles(
  files: FileOnDisk[],
  as: TaskInput<'import'>['as'],
  signal: AbortSignal | undefined
): Promise<Result<TaskResult<'import'>>> {
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
  const input = {
    files: files.map(({ name, path }) => ({ name: files.length === 1 ? basename(name) : name, path })),
    maxBytes: config.maxUnpackedBytes,
    as
  };
  const limits = { maxSeconds: config.importTimeoutMs / 1000, maxMemoryMb: config.importMemoryMb, signal };
  const read = await runTask('import', input, limits);
  return read.ok ? read : explained(read);
}

/** What to do about the refusals that the runner makes. */
function explained({ code, message }: Refused): Refused {
  if (code === 'timeout' || code === 'memory') return refused(`${message}; export the model coarser or in parts`, code);
  if (code === 'crashed' || code === 'fault')
    return refused('the reader failed on this file; export it again or in another format', 'truncated');
  return refused(message, code);
}
