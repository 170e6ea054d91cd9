/** Pictures of the library's materials: rendered when first asked for, and kept. */
import { mkdtemp, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, NodeIO } from '@gltf-transform/core';
import sharp from 'sharp';
import { afterAll, describe, expect, it, vi } from 'vitest';

import { NO_CHANGE } from '../../src/core/scene/change-material';

// the use cases read their data folder when they are loaded
vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-swatches-')));
const { fileSwatch, materialSwatch } = await import('../../src/server/usecases/material-swatch');
const { put } = await import('../../src/server/files/content-store');
const { closeDatabase } = await import('../../src/server/store/database');
afterAll(closeDatabase);

/** A metre of a surface with 200 repeats of a picture of two halves. */
async function striped(): Promise<Uint8Array> {
  const document = new Document();
  const halves = await sharp(Buffer.from([230, 20, 20, 20, 20, 230]), { raw: { width: 2, height: 1, channels: 3 } })
    .png()
    .toBuffer();
  const picture = document.createTexture('halves').setImage(new Uint8Array(halves)).setMimeType('image/png');
  const material = document.createMaterial('stripes').setBaseColorTexture(picture).setRoughnessFactor(1);
  material.setMetallicFactor(0);
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3', values: number[]) =>
    document.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', [0, 0, 0, 0, 0, 1, 1, 0, 0]))
    .setAttribute('NORMAL', accessor('VEC3', [0, 1, 0, 0, 1, 0, 0, 1, 0]))
    .setAttribute('TEXCOORD_0', accessor('VEC2', [0, 0, 0, 200, 200, 0]))
    .setMaterial(material);
  const node = document.createNode('floor').setMesh(document.createMesh('floor').addPrimitive(primitive));
  document.createScene().addChild(node);
  return new NodeIO().writeBinary(document);
}

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

  it('shows a material of a model with its picture as large as it lies there, changed or not', async () => {
    const { sha256: model } = await put('models', await striped());
    const plain = await fileSwatch({ model, name: 'stripes' }, null);
    const [red, , blue] = (await colorOf(plain!)) as [number, number, number];
    // half of the picture is red and half is blue, and many repeats lie on the object
    expect(Math.abs(red - blue)).toBeLessThan(40);
    const changed = await fileSwatch(
      { model, name: 'stripes' },
      JSON.stringify({ change: { ...NO_CHANGE, color: '#20a020' }, texture: null })
    );
    expect(changed).not.toBe(plain);
    expect(await fileSwatch({ model, name: 'nothing' }, null)).toBe(null);
    expect(await fileSwatch({ model: '../models', name: 'stripes' }, null)).toBe(null);
  }, 120_000);
});
