/**
 * sphaera finish PICTURE --project NAME [--proof N] [--finish finish.json] --out picture.EXT, and what file-arguments.ts
 * has: develops the film of a proof again, without rendering. Without --proof the newest whole one; without --finish as that
 * proof was finished. The file holds what a brief has in "finish"; what it leaves out is as in the proof.
 */
import { copyFile, rename, rm } from 'node:fs/promises';
import { parseBrief } from '../contracts/brief';
import { type Finish, BRIEF_DEFAULTS } from '../core/brief/brief';
import { deliverProof } from '../server/usecases/deliver-proof';
import { proofNumbered } from '../server/usecases/find-proof';
import { readArguments } from './arguments';
import { BadInput } from './bad-input';
import { FILE_ARGUMENTS, readFileArguments } from './file-arguments';
import { bringPressProfile } from './press-profile';
import { projectNamed } from './project-named';
import { readJson } from './read-json';

export async function finishCommand(args: string[]): Promise<number> {
  const { positional: name, options } = readArguments(args, ['project', 'proof', 'finish', ...FILE_ARGUMENTS]);
  const { out, press: profile, ...file } = readFileArguments(options);
  const project = projectNamed(options.project, 'the picture is of');
  const number = options.proof === undefined ? null : Number(options.proof);
  if (number !== null && (!Number.isInteger(number) || number < 1))
    throw new BadInput(`--proof must be the number on a ticket, got "${options.proof}"`);
  const found = proofNumbered(project, name, number);
  if (!found.ok) throw new BadInput(found.message);
  const { id, finish: own } = found.value;
  const finish = options.finish === undefined ? 'proof' : await readFinish(options.finish, own);
  const made = await deliverProof(id, {
    ...file,
    press: await bringPressProfile(profile),
    finish,
    background: finish !== 'proof' && finish.background.kind === 'clear' ? 'clear' : 'own',
    asRendered: false,
    cropMarks: false,
    about: null,
    pattern: ''
  });
  if (!made.ok) throw new BadInput(made.message);
  // written beside and renamed, so that a broken write never leaves half a picture under the name
  const part = `${out}.part`;
  try {
    await copyFile(made.value.path, part);
    await rename(part, out);
  } catch (error) {
    await rm(part, { force: true });
    throw new BadInput(`cannot write ${out}: ${(error as Error).message}`);
  }
  return 0;
}

async function readFinish(path: string, own: Finish): Promise<Finish> {
  const said = await readJson(path, 'the finish');
  if (typeof said !== 'object' || said === null || Array.isArray(said))
    throw new BadInput(`${path} must hold an object, as "finish" in a brief`);
  const parsed = parseBrief({ ...BRIEF_DEFAULTS, finish: { ...own, ...said } });
  if (!parsed.ok) throw new BadInput(`${path}: ${parsed.message}`);
  return parsed.value.finish;
}
