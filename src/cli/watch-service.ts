/** Follows the files of the watched folder that projects name, while the application runs. */
import { stat } from 'node:fs/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { config } from '../server/config';
import { newestAt, noteOfWatch, pathOfWatched, watchedFiles } from '../server/usecases/watched-file';
import { stateOf } from './quiet-file';
import { watchModel } from './watch-command';

const LOOK_MS = 1000;

/** The state of a file that was saved before a time; null when it was saved since, or is away. */
async function savedBefore(path: string, time_ms: number): Promise<string | null> {
  const saved_ms = await stat(path).then(
    (s) => s.mtimeMs,
    () => Number.POSITIVE_INFINITY
  );
  return saved_ms < time_ms ? stateOf(path) : null;
}

const following = new Map<string, { file: string; end: AbortController }>();
const stop = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stop.abort());

while (!stop.signal.aborted) {
  // whoever started it is gone
  if (process.ppid !== config.starter) break;
  const wanted = new Map(watchedFiles().map(({ project, file }) => [project, file]));
  for (const [project, { file, end }] of following)
    if (wanted.get(project) !== file) {
      end.abort();
      following.delete(project);
    }
  for (const [project, file] of wanted) {
    if (following.has(project)) continue;
    const path = await pathOfWatched(file);
    // it may be away while it is saved
    if (path === null) continue;
    // what was saved before the newest revision is in it, or was gone back from
    const from = await savedBefore(path, newestAt(project));
    const end = new AbortController();
    following.set(project, { file, end });
    const note = (_text: string, made: { ok: boolean; message?: string }) =>
      noteOfWatch(project, made.ok ? null : (made.message ?? null));
    void watchModel(path, project, end.signal, note, { from })
      .catch((error: unknown) => console.error(error))
      // another file may be followed by now
      .finally(() => following.get(project)?.end === end && following.delete(project));
  }
  await sleep(LOOK_MS, undefined, { signal: stop.signal }).catch(() => {});
}
for (const { end } of following.values()) end.abort();
