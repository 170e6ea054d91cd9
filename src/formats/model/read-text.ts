import { ModelRefused } from './model-refused';

/** Text of a file in the encoding that its first bytes tell; UTF-8 where they tell nothing. */
export function readText(bytes: Uint8Array): string {
  const encoding =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : bytes.length > 3 && bytes[0] === 0 && bytes[1] !== 0
          ? 'utf-16be'
          : bytes.length > 3 && bytes[1] === 0 && bytes[0] !== 0
            ? 'utf-16le'
            : 'utf-8';
  return new TextDecoder(encoding).decode(bytes);
}

const MOST_ELEMENTS_DEEP = 500;

/** Elements within elements without end take a reader's time and stack; no model has them. */
export function refuseDeepXml(text: string, format: string): void {
  let deep = 0;
  for (const [tag] of text.matchAll(/<(?:\/?[A-Za-z][^<>]*|!--[\s\S]*?--|[!?][^<>]*)>/g)) {
    if (tag.startsWith('</')) deep--;
    else if (!tag.endsWith('/>') && !/^<[!?]/.test(tag)) deep++;
    if (deep > MOST_ELEMENTS_DEEP)
      throw new ModelRefused('unsupported', `this ${format} file nests its elements too deeply; export it again`);
  }
}
