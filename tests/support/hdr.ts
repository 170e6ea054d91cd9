/** Radiance pictures for tests: Ward 1991, and the file format description of the Radiance reference manual. */
const head = (width: number, height: number) =>
  Buffer.from(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);
const EXPONENT = 136;

/** Two even halves, rows as runs. */
export function flatHdr(width: number, height: number): Buffer {
  const run = (value: number) => {
    const out: number[] = [];
    for (let left = width; left > 0; left -= 127) out.push(128 + Math.min(127, left), value);
    return out;
  };
  const row = (r: number, g: number, b: number) =>
    Buffer.from([2, 2, width >> 8, width & 255, ...run(r), ...run(g), ...run(b), ...run(EXPONENT)]);
  const [sky, ground] = [row(120, 140, 180), row(40, 36, 30)];
  return Buffer.concat([
    head(width, height),
    ...Array.from({ length: height }, (_, y) => (y < height / 2 ? sky : ground))
  ]);
}

/** Greys of 3 to 255, texel by texel. */
export function greyHdr(width: number, height: number, grey: (x: number, y: number) => number): Buffer {
  const texels = Buffer.alloc(width * height * 4, EXPONENT);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) texels.fill(grey(x, y), (y * width + x) * 4, (y * width + x) * 4 + 3);
  return Buffer.concat([head(width, height), texels]);
}
