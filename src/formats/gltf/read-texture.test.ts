import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readTexture } from './read-texture';

const png16 = (codes: number[]) =>
  sharp(Uint16Array.from(codes), { raw: { width: codes.length / 3, height: 1, channels: 3 } })
    .toColourspace('rgb16')
    .png()
    .toBuffer();

describe('a texture of 16 bits', () => {
  it('is rounded to the nearest code of 8 bits, with whole coverage', async () => {
    // a code of 8 bits is 257 of 16 (PNG specification, 13.12)
    const { width, pixels } = await readTexture(await png16([3000, 32_768, 65_535, 128, 129, 0]));
    expect(width).toBe(2);
    expect([...pixels]).toEqual([12, 128, 255, 255, 0, 1, 0, 255]);
  });
  it('of 8 bits stays as it is', async () => {
    const png = await sharp(Uint8Array.of(1, 2, 3, 4), { raw: { width: 1, height: 1, channels: 4 } })
      .png()
      .toBuffer();
    expect([...(await readTexture(png)).pixels]).toEqual([1, 2, 3, 4]);
  });
});
