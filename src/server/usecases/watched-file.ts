/**
 * A file of the folder that the server is allowed to watch (SPHAERA_WATCH), followed by a project: each time the design
 * program saves it, it becomes the next revision (cli/watch-service.ts).
 */
import { readdir, realpath } from 'node:fs/promises';
import { join, relative, sep } from 'node:path';
import type { WatchDto } from '../../contracts/dto';
import { type Result, ok, refused } from '../../core/result/result';
import { modelExtensions } from '../../formats/model';
import { config } from '../config';
import { findProject, latestRevision, listWatched, setWatched, setWatchNote, touchProject } from '../store/projects';

const MOST_FILES = 500;
const DEEPEST = 4;

/** Model files below the folder; folders that begin with a dot are left out. */
async function listFiles(folder: string): Promise<string[]> {
  const endings = new Set(modelExtensions());
  const out: string[] = [];
  const walk = async (at: string, depth: number): Promise<void> => {
    const entries = await readdir(at, { withFileTypes: true }).catch(() => []);
    for (const entry of entries.sort((a, b) => a.name.localeCompare(b.name))) {
      if (out.length >= MOST_FILES || entry.name.startsWith('.')) continue;
      const path = join(at, entry.name);
      if (entry.isDirectory() && depth < DEEPEST) await walk(path, depth + 1);
      else if (entry.isFile() && endings.has(entry.name.slice(entry.name.lastIndexOf('.') + 1).toLowerCase()))
        out.push(relative(folder, path).split(sep).join('/'));
    }
  };
  await walk(folder, 1);
  return out;
}

/** Null where no folder is watched. */
export async function viewWatch(projectId: string): Promise<Result<WatchDto | null>> {
  const project = findProject(projectId);
  if (!project) return gone();
  if (config.watchFolder === null) return ok(null);
  const { watched_file: file, watch_note: note } = project;
  return ok({ files: await listFiles(config.watchFolder), file, note });
}

/** Null ends it. */
export async function watchFile(projectId: string, file: string | null): Promise<Result<WatchDto | null>> {
  if (!findProject(projectId)) return gone();
  if (file !== null && (await pathOfWatched(file)) === null)
    return refused(`there is no file "${file.slice(0, 120)}" in the watched folder; choose one of the list`, 'gone');
  setWatched(projectId, file);
  touchProject(projectId);
  return viewWatch(projectId);
}

/** Where a file lies; null when it is not there, or leads out of the folder. */
export async function pathOfWatched(file: string): Promise<string | null> {
  if (config.watchFolder === null) return null;
  const folder = await realpath(config.watchFolder).catch(() => null);
  const path = await realpath(join(config.watchFolder, file)).catch(() => null);
  return folder !== null && path?.startsWith(folder + sep) ? path : null;
}

export const watchedFiles = (): { project: string; file: string }[] =>
  listWatched().map(({ id, watched_file }) => ({ project: id, file: watched_file }));

/** When the newest revision of a project came in, ms. */
export const newestAt = (projectId: string): number => latestRevision(projectId)?.created_at_ms ?? 0;

/** What became of the last save; null where it came in. */
export function noteOfWatch(projectId: string, note: string | null): void {
  if ((findProject(projectId)?.watch_note ?? null) === note) return;
  setWatchNote(projectId, note);
  touchProject(projectId);
}

const gone = () => refused('this project is no longer there; reload the page', 'gone');
