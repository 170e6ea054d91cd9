/** Pictures of the library's materials: rendered when first asked for, and kept. */
import { mkdtemp, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it, vi } from 'vitest';

// the use cases read their data folder when they are loaded
vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-swatches-')));
const { materialSwatch } = await import('../../src/server/usecases/material-swatch');
const { closeDatabase } = await import('../../src/server/store/database');
afterAll(closeDatabase);

/** Mean of each channel, 0 to 255, where the object is. */
async function colorOf(path: string): Promise<number[]> {
  // statistics are of what is read, not of what is cut out of it
  const part = await sharp(path).extract({ left: 95, top: 70, width: 30, height: 22 }).png().toBuffer();
  const { channels } = await sharp(part).stats();
  return channels.slice(0, 3).map((channel) => channel.mean);
}

describe('a swatch', () => {
  it('shows its material, is rendered once, and is none for what is not in the library', async () => {
    const [red, black, again] = await Promise.all(
      ['plastic-red', 'plastic-black-matte', 'plastic-red'].map((key) => materialSwatch(key))
    );
    expect(again).toBe(red);
    expect(await sharp(red!).metadata()).toMatchObject({ format: 'png', width: 168, height: 126 });
    const [r, g] = (await colorOf(red!)) as [number, number, number];
    expect(r).toBeGreaterThan(2 * g);
    expect(Math.max(...(await colorOf(black!)))).toBeLessThan(90);
    const made = (await stat(red!)).mtimeMs;
    await materialSwatch('plastic-red');
    expect((await stat(red!)).mtimeMs).toBe(made);
    expect(await materialSwatch('../../etc/passwd')).toBe(null);
  }, 120_000);
});
