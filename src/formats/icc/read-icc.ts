/**
 * What an ICC profile says of itself: its head and its name. ICC.1:2010 (version 4.3), 7.2 header, 7.3 tag table, 10.13
 * multiLocalizedUnicodeType; ICC.1:2001-04, 6.5.17 textDescriptionType (from memory).
 */
export interface IccFacts {
  /** May be empty. */
  name: string;
  /** Of device, as prtr, mntr, scnr. */
  kind: string;
  /** Of its device's colours, as CMYK, RGB, GRAY. */
  space: string;
}

const HEAD_BYTES = 128;
const MOST_TAGS = 200;

/** Throws a RangeError that says what is wrong. */
export function readIcc(bytes: Uint8Array): IccFacts {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const word = (at: number, length = 4) => String.fromCharCode(...bytes.subarray(at, at + length));
  if (bytes.length < HEAD_BYTES + 4 || word(36) !== 'acsp') throw new RangeError('it is not an ICC profile');
  if (view.getUint32(0) !== bytes.length)
    throw new RangeError(`it says that it has ${view.getUint32(0)} bytes and has ${bytes.length}; copy it again`);
  const tags = view.getUint32(HEAD_BYTES);
  if (tags > MOST_TAGS || HEAD_BYTES + 4 + tags * 12 > bytes.length)
    throw new RangeError('its list of tags is damaged');
  let name = '';
  for (let i = 0; i < tags; i++) {
    const at = HEAD_BYTES + 4 + i * 12;
    const [from, size] = [view.getUint32(at + 4), view.getUint32(at + 8)];
    if (from + size > bytes.length) throw new RangeError(`its tag "${word(at)}" lies beyond its end`);
    if (word(at) === 'desc') name = textOf(bytes.subarray(from, from + size));
  }
  return { name, kind: word(12).trim(), space: word(16).trim() };
}

const DEVICES: Record<string, string> = { prtr: 'printer', mntr: 'screen', scnr: 'camera or scanner' };

/** Throws a RangeError for a profile that is not of a press with four inks. */
export function readPressProfile(bytes: Uint8Array): IccFacts {
  const facts = readIcc(bytes);
  if (facts.kind !== 'prtr' || facts.space !== 'CMYK')
    throw new RangeError(
      `it is a profile of ${facts.space || 'unknown'} colours of a ${DEVICES[facts.kind] ?? 'device'}. A press needs one of ` +
        'CMYK of a printer; ask your printer for it'
    );
  return facts;
}

/** The first text of a description. */
function textOf(tag: Uint8Array): string {
  const view = new DataView(tag.buffer, tag.byteOffset, tag.byteLength);
  const type = String.fromCharCode(...tag.subarray(0, 4));
  const clean = (text: string) =>
    text
      .replaceAll(/[^\p{L}\p{N}\p{P}\p{S} ]/gu, '')
      .trim()
      .slice(0, 80);
  if (type === 'desc' && tag.length >= 12)
    return clean(String.fromCharCode(...tag.subarray(12, 12 + Math.min(view.getUint32(8), tag.length - 12))));
  if (type !== 'mluc' || tag.length < 28 || view.getUint32(8) === 0) return '';
  const [length, from] = [view.getUint32(20), view.getUint32(24)];
  if (from + length > tag.length) return '';
  return clean(String.fromCharCode(...Array.from({ length: length >> 1 }, (_, i) => view.getUint16(from + i * 2))));
}
