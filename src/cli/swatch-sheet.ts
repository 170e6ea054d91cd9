/** Renders every material of the library on its small object, with its name: node build/swatch-sheet.mjs FILE */
import sharp from 'sharp';
import { MATERIAL_LIBRARY } from '../core/scene/material-library';
import { loadKernel } from '../server/render/kernel-file';
import { swatchOf } from '../server/render/swatch';

const COLUMNS = 9;
const [WIDTH, HEIGHT] = [168, 126];
const NAME_HEIGHT = 22;
const GAP = 6;

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
const nameTag = (name: string) =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${NAME_HEIGHT}">` +
      `<text x="1" y="15" font-family="sans-serif" font-size="12" fill="#222">${escaped(name)}</text></svg>`
  );

const [out] = process.argv.slice(2) as [string];
const module = await loadKernel();
const parts: { input: Buffer; left: number; top: number }[] = [];
for (const [i, { key, name }] of MATERIAL_LIBRARY.entries()) {
  const left = (i % COLUMNS) * (WIDTH + GAP);
  const top = Math.floor(i / COLUMNS) * (HEIGHT + NAME_HEIGHT + GAP);
  const picture = await swatchOf({ becomes: key, change: null, texture: null }, module);
  parts.push({ input: Buffer.from(picture), left, top }, { input: nameTag(name), left, top: top + HEIGHT });
}
const rows = Math.ceil(MATERIAL_LIBRARY.length / COLUMNS);
await sharp({
  create: {
    width: COLUMNS * (WIDTH + GAP) - GAP,
    height: rows * (HEIGHT + NAME_HEIGHT + GAP),
    channels: 3,
    background: '#ffffff'
  }
})
  .composite(parts)
  .png({ palette: true, quality: 90 })
  .toFile(out);
