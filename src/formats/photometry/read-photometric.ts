/** Reads a photometric file of either format, told apart by what is in it: LM-63 alone has a line TILT=. */
import type { PhotometricFile } from './photometric-file';
import { readEulumdat } from './read-eulumdat';
import { LINE_END, readLm63, TILT } from './read-lm63';

/**
 * Throws a PhotometryRefused, which names the line. Files of the trade are Latin-1 or UTF-8; names alone tell the
 * difference.
 */
export function readPhotometric(bytes: Uint8Array): PhotometricFile {
  const utf8 = new TextDecoder('utf-8', { fatal: false }).decode(bytes);
  const text = utf8.includes('\ufffd') ? new TextDecoder('latin1').decode(bytes) : utf8;
  const lines = text.split(LINE_END);
  const isLm63 = lines.some((line) => TILT.test(line)) || lines[0]!.trimStart().startsWith('IESNA');
  return isLm63 ? readLm63(text) : readEulumdat(text);
}
