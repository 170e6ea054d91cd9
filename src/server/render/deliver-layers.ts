/**
 * A picture as a layered file for retouching: OpenRaster, a ZIP of PNG layers with a list of them. Source: the OpenRaster
 * specification (freedesktop.org), baseline, from memory. The picture lies on top; under it, hidden, each light alone, and
 * masks of the largest parts and materials as white with their coverage.
 */
import { createWriteStream } from 'node:fs';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeStream } from 'node:stream/web';
import sharp from 'sharp';
import { capital } from '../../core/brief/amounts';
import type { Finish } from '../../core/brief/brief';
import { sameGroup } from '../../core/scene/lamp-groups';
import { encodeRows } from '../../core/finishing/encode-rows';
import { writeImage } from '../../formats/image/encode';
import { zipOf } from '../../formats/write-zip';
import { copyOf, type FilmFile, filmRows, type FilmView } from './film-rows';
import { maskFiles } from './mask-files';

interface Layer {
  name: string;
  file: string;
  hidden: boolean;
}

const THUMBNAIL_PX = 256;

/** Of a layer, as the format has it. */
const PLAIN = { kind: 'png', bits: 8, colors: 'srgb', press: null } as const;

export async function writeLayered(path: string, view: FilmView, file: FilmFile): Promise<void> {
  const folder = `${path}.layers`;
  await mkdir(folder, { recursive: true });
  try {
    const layers: Layer[] = [];
    const keepAlpha = file.finish.background.kind === 'clear';
    const add = async (name: string, hidden: boolean, finish: Finish) => {
      const { rows, scale } = copyOf(await filmRows(view, finish, file.backdrop ?? null), file.long_px);
      const { quality, about } = file;
      const ppi = file.ppi === null ? null : file.ppi * scale;
      const at = `${layers.length}.png`;
      const image = { ...PLAIN, quality, about, ppi, keepAlpha };
      await writeImage(join(folder, at), encodeRows(rows, '8 bit'), image);
      layers.push({ name, file: at, hidden });
      return { width: rows.width, height: rows.height, ppi };
    };
    const { width, height, ppi } = await add('Picture', false, file.finish);
    for (const group of view.layers.groups) {
      const others = view.layers.groups
        .filter((other) => other !== group)
        .map((other) => ({ group: other, on: false, dim_ev: 0, warmth_mired: 0 }));
      const own = file.finish.lamps.filter((dimmer) => sameGroup(dimmer.group, group));
      await add(`Light: ${capital(group)}`, true, { ...file.finish, lamps: [...others, ...own] });
    }
    if (view.layers.aovs)
      for await (const { name, bytes } of maskFiles(view)) {
        // the coverages, which lie in folders
        if (!name.includes('/') || !name.endsWith('.png')) continue;
        const at = `${layers.length}.png`;
        const mask = await sharp(bytes).resize(width, height).toColourspace('b-w').raw().toBuffer();
        await sharp({ create: { width, height, channels: 3, background: '#ffffff' }, limitInputPixels: false })
          .joinChannel(mask, { raw: { width, height, channels: 1 } })
          .png()
          .toFile(join(folder, at));
        layers.push({ name: `Mask: ${name.slice(0, -4).replace(/^(\w+)s\/\d+ /, '$1 ')}`, file: at, hidden: true });
      }
    await writeFile(join(folder, 'mimetype'), 'image/openraster');
    await writeFile(join(folder, 'stack.xml'), stackOf(layers, width, height, ppi));
    await sharp(join(folder, '0.png'), { limitInputPixels: false })
      .resize({ width: THUMBNAIL_PX, height: THUMBNAIL_PX, fit: 'inside' })
      .png()
      .toFile(join(folder, 'thumbnail.png'));
    const entries = [
      // first, so that its kind is read from the first bytes
      { path: join(folder, 'mimetype'), name: 'mimetype' },
      { path: join(folder, 'stack.xml'), name: 'stack.xml' },
      { path: join(folder, 'thumbnail.png'), name: 'Thumbnails/thumbnail.png' },
      { path: join(folder, '0.png'), name: 'mergedimage.png' },
      ...layers.map((layer) => ({ path: join(folder, layer.file), name: `data/${layer.file}` }))
    ];
    await pipeline(Readable.fromWeb(zipOf(entries) as unknown as NodeStream), createWriteStream(path));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

function stackOf(layers: readonly Layer[], width: number, height: number, ppi: number | null): string {
  const density = ppi === null ? '' : ` xres="${Math.round(ppi)}" yres="${Math.round(ppi)}"`;
  const lines = layers.map(
    ({ name, file, hidden }) =>
      `    <layer name="${escaped(name)}" src="data/${file}" x="0" y="0" opacity="1.0" ` +
      `visibility="${hidden ? 'hidden' : 'visible'}" composite-op="svg:src-over"/>`
  );
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.3" w="${width}" h="${height}"${density}>\n` +
    `  <stack>\n${lines.join('\n')}\n  </stack>\n</image>\n`
  );
}
