/** The profile that a command is given with --profile. */
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { readPressProfile } from '../formats/icc/read-icc';
import { put } from '../server/files/content-store';
import { addPressProfile } from '../server/usecases/press-profiles';
import { BadInput } from './bad-input';

/** Refuses what is not the profile of a press. */
export async function checkPressProfile(path: string | null): Promise<void> {
  if (path === null) return;
  const bytes = await readFile(path).catch(() => {
    throw new BadInput(`cannot read the profile ${path}; check its name`);
  });
  try {
    readPressProfile(new Uint8Array(bytes));
  } catch (error) {
    if (error instanceof RangeError) throw new BadInput(`${path}: ${error.message}`);
    throw error;
  }
}

/** Brings it into the application; its hash. */
export async function bringPressProfile(path: string | null): Promise<string | null> {
  if (path === null) return null;
  await checkPressProfile(path);
  const { sha256 } = await put('incoming', await readFile(path));
  const made = await addPressProfile(sha256, basename(path));
  if (!made.ok) throw new BadInput(made.message);
  return made.value.sha256;
}
