/** Colour tables: parsed, looked up, refused with the line that is wrong. */
import { describe, expect, it } from 'vitest';
import { lookUpColour, parseCube } from './table';

/** A table that makes of each colour what a function says. */
function cube(size: number, of: (r: number, g: number, b: number) => number[], head = ''): string {
  const lines = [`TITLE "Test"`, `LUT_3D_SIZE ${size}`, head];
  for (let b = 0; b < size; b++)
    for (let g = 0; g < size; g++)
      for (let r = 0; r < size; r++) lines.push(of(r / (size - 1), g / (size - 1), b / (size - 1)).join(' '));
  return lines.join('\n');
}
const looked = (text: string, rgb: number[]) => {
  const out = Float64Array.from(rgb);
  lookUpColour(parseCube(text), out);
  return [...out];
};
const close = (a: number[], b: number[]) => {
  for (const [i, v] of a.entries()) expect(v).toBeCloseTo(b[i]!, 5);
};
const PLACES = [
  [0, 0, 0],
  [1, 1, 1],
  [0.2, 0.7, 0.4],
  [0.9, 0.1, 0.5],
  [0.33, 0.34, 0.35],
  [0.6, 0.8, 0.1]
];

describe('a colour table', () => {
  it('that changes nothing changes nothing, and any linear one is exact between its entries', () => {
    for (const rgb of PLACES) {
      close(
        looked(
          cube(2, (r, g, b) => [r, g, b]),
          rgb
        ),
        rgb
      );
      const [r, g, b] = rgb as [number, number, number];
      close(
        looked(
          cube(5, (x, y, z) => [0.5 * x + 0.2 * z, 1 - y, 0.3 * x + 0.1 * y + 0.4 * z]),
          rgb
        ),
        [0.5 * r + 0.2 * b, 1 - g, 0.3 * r + 0.1 * g + 0.4 * b]
      );
    }
  });
  it('keeps greys grey where its own greys are, whatever lies beside them', () => {
    const odd = cube(4, (r, g, b) => (r === g && g === b ? [r * r, r * r, r * r] : [1, 0, 0.5]));
    for (const v of [0.1, 0.4, 0.77]) {
      const [r, g, b] = looked(odd, [v, v, v]);
      expect(Math.max(r!, g!, b!) - Math.min(r!, g!, b!)).toBeLessThan(1e-6);
    }
  });
  it('of one dimension is a curve a channel; colours beyond its domain are those of its end', () => {
    const text = 'LUT_1D_SIZE 3\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 2\n0 0 0\n0.5 0.4 0.3\n1 1 1\n';
    close(looked(text, [0.5, 0.5, 1]), [0.25, 0.2, 0.3]);
    close(looked(text, [5, -1, 2]), [1, 0, 1]);
  });
  it.each([
    ['nothing here', /line 1: "nothing"/],
    ['', /no LUT_1D_SIZE or LUT_3D_SIZE/],
    ['0 0 0', /line 1: rows of numbers come after/],
    ['LUT_3D_SIZE 1', /line 1: the size must be a whole number from 2 to 256/],
    ['LUT_3D_SIZE 2\n0 0 0\n1 1', /line 3: expected three numbers/],
    ['LUT_3D_SIZE 2\n0 0 0\n1 1 x', /line 3: expected three numbers/],
    ['LUT_3D_SIZE 2\n0 0 0', /it has 1 rows, 8 belong to its size/],
    ['LUT_1D_SIZE 2\n0 0 0\n1 1 1\n1 1 1', /line 4: there are more rows than the 2/],
    ['LUT_1D_SIZE 2\nDOMAIN_MAX 0 1 1\n0 0 0\n1 1 1', /DOMAIN_MIN must be below DOMAIN_MAX/]
  ])('refuses %j in a sentence', (text, says) => expect(() => parseCube(text)).toThrow(says));
  it('has a title, comments and lines that end as any system ends them', () => {
    const table = parseCube('# made for a test\r\nTITLE "Warm print"\r\nLUT_1D_SIZE 2\r\n0 0 0\r\n1 1 1\r\n');
    expect(table).toMatchObject({ title: 'Warm print', size: 2, dimensions: 1 });
  });
});
