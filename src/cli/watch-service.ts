/** Follows the files of the watched folder that projects name, while the application runs. */
import { setTimeout as sleep } from 'node:timers/promises';
import { config } from '../server/config';
import { noteOfWatch, pathOfWatched, watchedFiles } from '../server/usecases/watched-file';
import { watchModel } from './watch-command';

const LOOK_MS = 1000;

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
    const end = new AbortController();
    following.set(project, { file, end });
    void watchModel(path, project, end.signal, (_text, made) => noteOfWatch(project, made.ok ? null : made.message))
      .catch((error: unknown) => console.error(error))
      .finally(() => following.delete(project));
  }
  await sleep(LOOK_MS, undefined, { signal: stop.signal }).catch(() => {});
}
for (const { end } of following.values()) end.abort();
