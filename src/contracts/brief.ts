/** Checks a brief and its parts by the definitions of core/brief/fields, and fills in what they leave out. */
import { BRIEF_VERSION, type Brief, type Patch } from '../core/brief/brief';
import { BRIEF } from '../core/brief/fields/brief-fields';
import { migrateBrief, READ_VERSIONS } from '../core/brief/migrate';
import { type Result, ok } from '../core/result/result';
import { parseField } from './from-fields';
import { quoted, refuse } from './validate';

/** A brief of any version that is read. The message names the field and the allowed range. */
export function parseBrief(input: unknown): Result<Brief> {
  if (input === null || typeof input !== 'object' || Array.isArray(input))
    return refuse(`brief must be an object, got ${quoted(input)}`);
  const { version } = input as { version?: unknown };
  if (!READ_VERSIONS.includes(version as number))
    return refuse(`brief.version must be ${READ_VERSIONS.join(' or ')}, got ${quoted(version)}`);
  const brief = migrateBrief(input, version) as Record<string, unknown>;
  const fields = Object.keys(BRIEF.fields);
  for (const key of Object.keys(brief))
    if (!fields.includes(key)) return refuse(`brief.${key} is not a known field; the fields are ${fields.join(', ')}`);
  const parsed = parseField(BRIEF, { ...brief, version: BRIEF_VERSION }, 'brief');
  return parsed.ok ? ok(parsed.value as Brief) : parsed;
}

/** Null for the whole picture. */
export const parsePatch = (input: unknown): Result<Patch | null> =>
  parseField(BRIEF.fields.patch, input ?? null, 'brief.patch') as Result<Patch | null>;
