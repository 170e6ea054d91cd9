import { beforeAll, describe, expect, it } from 'vitest';
import { withCropMarks } from './crop-marks';

describe('crop marks', () => {
  // 100 ppi: a millimetre is 3.94 px; a picture of 200 x 120 px with 12 px (3 mm) of bleed
  const image = { width: 200, height: 120, pixels: new Uint8Array(200 * 120 * 4).fill(77) };
  const marks = withCropMarks(
    { ...image, read: async (y, count) => image.pixels.subarray(y * 800, (y + count) * 800) },
    12,
    100
  );
  let marked = { width: 0, height: 0, pixels: new Uint8Array(0) };
  beforeAll(async () => {
    // in strips, as it is written
    const strips: Uint8Array[] = [];
    for (let y = 0; y < marks.height; y += 7) strips.push(await marks.read(y, Math.min(7, marks.height - y)));
    marked = { width: marks.width, height: marks.height, pixels: Buffer.concat(strips) };
  });
  const at = (x: number, y: number) => marked.pixels[(y * marked.width + x) * 4]!;
  const margin = (marks.width - 200) / 2;

  it('leave the picture as it is, on white, with the same margin all round', () => {
    expect(marked.height - 120).toBe(marked.width - 200);
    let same = 0;
    for (let y = 0; y < 120; y++) for (let x = 0; x < 200; x++) if (at(x + margin, y + margin) === 77) same++;
    expect(same).toBe(200 * 120);
    expect([at(0, 0), at(marked.width - 1, marked.height - 1), at(marked.width >> 1, 2)]).toEqual([255, 255, 255]);
  });
  it('point at the corners of the trim, clear of the bleed', () => {
    for (const x of [margin + 12, marked.width - margin - 12]) {
      const dark = Array.from({ length: marked.height }, (_, y) => y).filter((y) => at(x, y) === 0);
      expect(dark.length).toBe(40); // two of 5 mm
      expect(dark.every((y) => y < margin - 7 || y > marked.height - margin + 7)).toBe(true);
    }
    for (const y of [margin + 12, marked.height - margin - 12])
      expect(Array.from({ length: marked.width }, (_, x) => at(x, y)).filter((v) => v === 0).length).toBe(40);
  });
});
