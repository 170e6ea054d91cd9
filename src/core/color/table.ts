/**
 * Colour tables that other programs write: displayed colours to other displayed colours, both encoded as in a file. Read
 * from .cube text as its specification has it (Cube LUT Specification 1.0, 2013; from memory): TITLE, DOMAIN_MIN,
 * DOMAIN_MAX, LUT_1D_SIZE or LUT_3D_SIZE, then rows of three numbers, red fastest.
 */
export interface ColourTable {
  title: string;
  /** Entries along each axis. */
  size: number;
  dimensions: 1 | 3;
  least: readonly [number, number, number];
  most: readonly [number, number, number];
  /** rgb. */
  data: Float32Array;
}

const MOST_SIZE = { 1: 65_536, 3: 256 } as const;
const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/;

/** Throws a RangeError that says what is wrong in which line. */
export function parseCube(text: string): ColourTable {
  let title = '';
  let size = 0;
  let dimensions: 1 | 3 | null = null;
  let least: ColourTable['least'] = [0, 0, 0];
  let most: ColourTable['most'] = [1, 1, 1];
  let data: Float32Array | null = null;
  let at = 0;
  for (const [i, whole] of text.split(/\r\n|\r|\n/).entries()) {
    const line = whole.trim();
    const wrong = (what: string) => new RangeError(`line ${i + 1}: ${what}`);
    if (line === '' || line.startsWith('#')) continue;
    const [word = '', ...rest] = line.split(/\s+/);
    const three = (): [number, number, number] => {
      const values = (NUMBER.test(word) ? [word, ...rest] : rest).map((v) => (NUMBER.test(v) ? Number(v) : Number.NaN));
      if (values.length !== 3 || values.some((v) => !Number.isFinite(v))) throw wrong('expected three numbers');
      return values as [number, number, number];
    };
    if (word === 'TITLE') title = line.slice(5).trim().replace(/^"|"$/g, '').slice(0, 120);
    else if (word === 'DOMAIN_MIN') least = three();
    else if (word === 'DOMAIN_MAX') most = three();
    else if (word === 'LUT_1D_SIZE' || word === 'LUT_3D_SIZE') {
      if (dimensions !== null) throw wrong('a table has one size');
      dimensions = word === 'LUT_1D_SIZE' ? 1 : 3;
      size = Number(rest[0]);
      if (!Number.isInteger(size) || size < 2 || size > MOST_SIZE[dimensions])
        throw wrong(`the size must be a whole number from 2 to ${MOST_SIZE[dimensions].toLocaleString('en')}`);
      data = new Float32Array(size ** dimensions * 3);
    } else if (NUMBER.test(word)) {
      if (!data) throw wrong('rows of numbers come after LUT_1D_SIZE or LUT_3D_SIZE');
      if (at >= data.length) throw wrong(`there are more rows than the ${data.length / 3} of this size`);
      data.set(three(), at);
      at += 3;
    } else if (!/^[A-Z_0-9]+$/.test(word)) throw wrong(`"${word.slice(0, 40)}" is not part of a table`);
  }
  if (!data || dimensions === null) throw new RangeError('there is no LUT_1D_SIZE or LUT_3D_SIZE in it');
  if (at < data.length) throw new RangeError(`it has ${at / 3} rows, ${data.length / 3} belong to its size`);
  if (least.some((v, c) => !(v < most[c]!))) throw new RangeError('DOMAIN_MIN must be below DOMAIN_MAX');
  return { title, size, dimensions, least, most, data };
}

/**
 * Writes what a table makes of an encoded colour, in place. Between the entries of three dimensions by tetrahedra, which
 * keep greys grey (Kasson, Nin, Plouffe and Hafner 1995; from memory).
 */
export function lookUpColour({ size, dimensions, least, most, data }: ColourTable, rgb: Float64Array): void {
  const end = size - 1;
  const place = (c: number) => Math.min(end, Math.max(0, ((rgb[c]! - least[c]!) / (most[c]! - least[c]!)) * end));
  const [x, y, z] = [place(0), place(1), place(2)];
  const [i, j, k] = [
    Math.min(end - 1, Math.floor(x)),
    Math.min(end - 1, Math.floor(y)),
    Math.min(end - 1, Math.floor(z))
  ];
  const [a, b, c] = [x - i, y - j, z - k];
  if (dimensions === 1) {
    const own = (n: number, t: number, channel: number) =>
      data[n * 3 + channel]! + (data[(n + 1) * 3 + channel]! - data[n * 3 + channel]!) * t;
    [rgb[0], rgb[1], rgb[2]] = [own(i, a, 0), own(j, b, 1), own(k, c, 2)];
    return;
  }
  const [dx, dy, dz] = [3, size * 3, size * size * 3];
  const first = i * dx + j * dy + k * dz;
  // from the near corner to the far one, along the axes in the order of how far the colour lies along them
  const order =
    a >= b
      ? b >= c
        ? [dx, a, dy, b, dz, c]
        : a >= c
          ? [dx, a, dz, c, dy, b]
          : [dz, c, dx, a, dy, b]
      : a >= c
        ? [dy, b, dx, a, dz, c]
        : b >= c
          ? [dy, b, dz, c, dx, a]
          : [dz, c, dy, b, dx, a];
  for (let channel = 0; channel < 3; channel++) {
    let at = first + channel;
    let before = data[at]!;
    let value = before;
    for (let step = 0; step < 6; step += 2) {
      at += order[step]!;
      const next = data[at]!;
      value += (next - before) * order[step + 1]!;
      before = next;
    }
    rgb[channel] = value;
  }
}
