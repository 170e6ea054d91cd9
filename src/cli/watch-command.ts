/**
 * sphaera watch FILE --project NAME: each time the design program saves the file again, it becomes the next revision of the
 * project. A half-written file is waited for; one that cannot be read is told, and the next save is tried.
 */
import { access } from 'node:fs/promises';
import { bringModelFiles } from '../server/usecases/bring-revision';
import type { Result } from '../core/result/result';
import { readArguments } from './arguments';
import { BadInput } from './bad-input';
import { modelFiles } from './model-files';
import { projectNamed } from './project-named';
import { untilQuiet } from './quiet-file';

const QUIET_MS = 1000;

export async function watchCommand(args: string[]): Promise<number> {
  const { positional: file, options } = readArguments(args, ['project']);
  const project = projectNamed(options.project, 'the file is of');
  await access(file).catch(() => {
    throw new BadInput(`there is no file ${file}; check its name`);
  });
  const end = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => end.abort());
  console.log(`Watching ${file} for "${options.project}". Press Control and C to end.`);
  await watchModel(file, project, end.signal, (text) => console.log(text));
  return 0;
}

/**
 * Until `signal`; `say` is told what became of each save. `from`: the state of the file that needs not be brought in; null
 * when it is, whatever it is.
 */
export async function watchModel(
  file: string,
  project: string,
  signal: AbortSignal,
  say: (text: string, made: Result<{ same: boolean }>) => void,
  { quiet_ms = QUIET_MS, from = null }: { quiet_ms?: number; from?: string | null } = {}
): Promise<void> {
  for (
    let seen = await untilQuiet(file, { before: from, quiet_ms, signal });
    seen !== null;
    seen = await untilQuiet(file, { before: seen, quiet_ms, signal })
  ) {
    const made = await bringModelFiles(project, await modelFiles(file), signal);
    if (signal.aborted) return;
    say(
      !made.ok
        ? `Not brought in: ${made.message}.`
        : made.value.same
          ? 'It is the model that is there already.'
          : 'Brought in as the next revision.',
      made
    );
  }
}
