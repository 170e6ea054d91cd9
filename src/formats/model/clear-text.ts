/** The clear text of ISO 10303-21, in which STEP and IFC are written. */
import { ModelRefused } from './model-refused';

const END_BYTES = 512;

/** What a file says that it is of, as "IFC2X3"; empty when it does not. */
export const schemaOf = (bytes: Uint8Array): string =>
  /FILE_SCHEMA\s*\(\s*\(\s*'([^']*)'/i.exec(Buffer.from(bytes.subarray(0, 16_384)).toString('latin1'))?.[1] ?? '';

/** A file without its last line was cut off: what is left of it would be taken for the whole. */
export function refuseCutOff(bytes: Uint8Array, format: string): void {
  const end = Buffer.from(bytes.subarray(Math.max(0, bytes.length - END_BYTES))).toString('latin1');
  if (!/END-ISO-10303-21\s*;/.test(end))
    throw new ModelRefused('truncated', `this ${format} file is cut off: its end is missing; copy or export it again`);
}
