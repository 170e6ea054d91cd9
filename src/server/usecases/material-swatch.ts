/** The picture of a material of the library or of a model, changed or not; rendered when it is first asked for, one after the other. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { access, mkdir, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { BRIEF_VERSION, canonicalJson, type Swatch } from '../../core/brief/brief';
import { libraryMaterial } from '../../core/scene/material-library';
import { config } from '../config';
import { previewPath } from '../files/previews';
import { runTask } from '../jobs/run-task';
import type { MaterialOfModel } from '../jobs/tasks';
import { singleton } from '../jobs/singleton';
import { readRules } from './project-materials';
import { underWay } from './under-way';

/** A page asks for many at once, and each would take all cores: one is made at a time, what was asked for last first. */
const line = () => singleton('swatches in line', (): Line => ({ waiting: [], busy: false }));
interface Line {
  waiting: (() => void)[];
  busy: boolean;
}

let code: string | null = null;

/** Path of the PNG; null when there is no such material or it cannot be rendered. `more`: change and texture, as JSON. */
export async function materialSwatch(key: string, more: string | null = null): Promise<string | null> {
  const entry = libraryMaterial(key);
  return entry ? swatch(key, null, more, entry) : null;
}

/** The same of a material of a model, by its name there. */
export const fileSwatch = (of: MaterialOfModel, more: string | null): Promise<string | null> =>
  /^[0-9a-f]{64}$/.test(of.model) ? swatch(null, of, more, of) : Promise.resolve(null);

/** `known`: what is shown, to find it again by. */
async function swatch(
  becomes: string | null,
  of: MaterialOfModel | null,
  more: string | null,
  known: object
): Promise<string | null> {
  const rules = readRules({ version: BRIEF_VERSION, materials: [{ material: 'swatch', becomes, ...asObject(more) }] });
  if (!rules.ok) return null;
  const rule = rules.value[0]!;
  code ??= readFileSync(config.built('bundles.stamp'), 'utf8');
  const hash = createHash('sha256')
    .update(code)
    .update(canonicalJson({ known, change: rule.change, texture: rule.texture }))
    .digest('hex')
    .slice(0, 16);
  const path = previewPath(`material-${becomes ?? 'of-file'}-${hash}`);
  const there = await access(path).then(
    () => true,
    () => false
  );
  return there ? path : underWay('swatch', path, () => inLine(() => make(rule, of, path)));
}

/** Of what an address says; nothing where it is none. */
function asObject(json: string | null): object {
  try {
    const { change = null, texture = null } = JSON.parse(json ?? '{}') as Partial<Swatch>;
    return { change, texture };
  } catch {
    return {};
  }
}

function inLine<T>(work: () => Promise<T>): Promise<T> {
  const own = line();
  const next = () => {
    const job = own.waiting.pop();
    own.busy = job !== undefined;
    job?.();
  };
  return new Promise<T>((resolve, reject) => {
    own.waiting.push(() => void work().then(resolve, reject).finally(next));
    if (!own.busy) next();
  });
}

async function make(
  { becomes, change, texture }: Swatch,
  of: MaterialOfModel | null,
  path: string
): Promise<string | null> {
  const made = await runTask('swatch', { becomes, change, texture, of });
  if (!made.ok) return null;
  await mkdir(dirname(path), { recursive: true });
  const part = `${path}.${process.pid}.part`;
  await writeFile(part, made.value);
  await rename(part, path);
  return path;
}
