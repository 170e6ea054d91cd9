/** Files that were made to break a reader: each is refused in a sentence, and the process that reads it ends. */
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { boxGlb } from '../support/glb';

vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-hostile-')));
vi.stubEnv('SPHAERA_IMPORT_TIMEOUT_MS', '60000');
const { put } = await import('../../src/server/files/content-store');
const { closeDatabase } = await import('../../src/server/store/database');
const { addBackdrop } = await import('../../src/server/usecases/add-backdrop');
const { addCaptured } = await import('../../src/server/usecases/add-captured');
const { addPhotometric } = await import('../../src/server/usecases/add-photometric');
const { importModel } = await import('../../src/server/usecases/import-model');
const folder = await mkdtemp(join(tmpdir(), 'sphaera-hostile-'));
afterAll(() => closeDatabase());

const message = (result: { ok: boolean; message?: string }) => (result.ok ? 'accepted' : result.message!);
async function bring(name: string, bytes: Uint8Array | string): Promise<string> {
  const path = join(folder, name);
  await writeFile(path, bytes);
  return message(await importModel({ files: [{ path, name }], unit: 'm', up: 'y' }));
}
const uploaded = async (bytes: Uint8Array | string) =>
  (await put('incoming', typeof bytes === 'string' ? Buffer.from(bytes) : bytes)).sha256;

const asset = { version: '2.0' };
const drawn = { meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }], scenes: [{ nodes: [0] }] };
const data = (bytes: number) => `data:application/octet-stream;base64,${Buffer.alloc(bytes).toString('base64')}`;
const view = { buffers: [{ byteLength: 36, uri: data(36) }], bufferViews: [{ buffer: 0, byteLength: 36 }] };
const points = { componentType: 5126, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 1] };

describe('a hostile model', () => {
  it.each([
    [
      'that states gigabytes of zeros',
      { ...drawn, accessors: [{ ...points, count: 5e8 }], nodes: [{ mesh: 0 }] },
      /states .* MB of data that it does not hold/
    ],
    [
      'with an accessor beyond its data',
      { ...drawn, ...view, accessors: [{ ...points, bufferView: 0, count: 1000 }], nodes: [{ mesh: 0 }] },
      /at \/accessors\/0: .*does not fit/
    ],
    [
      'with a node that is its own ancestor',
      {
        ...drawn,
        ...view,
        accessors: [{ ...points, bufferView: 0, count: 3 }],
        nodes: [{ children: [1] }, { children: [0] }]
      },
      /its own ancestor/
    ],
    [
      'with a node of two parents',
      { ...drawn, nodes: [{ children: [2] }, { children: [2] }, {}], accessors: [] },
      /\/nodes\/2: it has two parents/
    ],
    [
      'with strings for numbers',
      {
        ...drawn,
        ...view,
        accessors: [{ ...points, bufferView: 0, count: 3 }],
        nodes: [{ mesh: 0, matrix: Array(16).fill('1') }]
      },
      /at \/nodes\/0\/matrix: Type mismatch/
    ],
    [
      'with a matrix of two numbers',
      { ...drawn, ...view, accessors: [{ ...points, bufferView: 0, count: 3 }], nodes: [{ mesh: 0, matrix: [1, 2] }] },
      /at \/nodes\/0\/matrix/
    ],
    [
      'of a hundred thousand nodes, each within the last',
      {
        ...drawn,
        accessors: [],
        nodes: Array.from({ length: 100_000 }, (_, i) => (i < 99_999 ? { children: [i + 1] } : {}))
      },
      /more than 1,000 deep/
    ]
  ])('%s is refused with its place', async (_, json, expected) => {
    expect(await bring('model.gltf', JSON.stringify({ asset, ...json }))).toMatch(expected);
  });

  it('packed as many small files of zeros is refused before it is unpacked', async () => {
    const zeros = new Uint8Array(2 ** 20);
    const bomb = zipSync(Object.fromEntries(Array.from({ length: 400 }, (_, i) => [`${i}.bin`, zeros])));
    expect(await bring('bomb.zip', bomb)).toMatch(/unpacks to more than is allowed/);
  });

  it('never answers with the text of an exception', async () => {
    const glb = await boxGlb({ size: 1 });
    const cut = glb.slice(0, glb.length - 200);
    new DataView(cut.buffer, cut.byteOffset).setUint32(8, cut.length, true);
    const said = await bring('cut.glb', cut);
    expect(said).toMatch(/export it/);
    expect(said).not.toMatch(/undefined|function|RangeError|TypeError/);
  });
});

describe('a hostile file of a library', () => {
  it('is refused as a captured image', async () => {
    const exr = await uploaded(Uint8Array.from([0x76, 0x2f, 0x31, 0x01, 2, 0, 0, 0]));
    expect(message(await addCaptured(exr, 'loop.exr', false))).toMatch(/^"loop.exr" is damaged inside its header/);
    // its header alone says that it is no full circle: nothing is decoded
    const hdr = await uploaded('#?RADIANCE\n\n-Y 8192 +X 8192\n');
    expect(message(await addCaptured(hdr, 'square.hdr', false))).toMatch(/twice as wide as high/);
  });

  it('is refused as a photometric file', async () => {
    const lines = await uploaded('\n'.repeat(160_000));
    expect(message(await addPhotometric(lines, 'lines.ies'))).toMatch(/^"lines.ies", /);
  });

  it('is refused as a picture: a drawing of 260 bytes can ask for any number of pixels', async () => {
    const svg = await uploaded(
      '<svg xmlns="http://www.w3.org/2000/svg" width="15000" height="15000"><rect width="9"/></svg>'
    );
    expect(message(await addBackdrop(svg, 'huge.svg', 'behind'))).toMatch(/cannot be read as a picture; PNG, JPEG/);
  });

  it('ends its reader when whoever asked has left', async () => {
    const left = new AbortController();
    left.abort();
    const svg = await uploaded('<svg/>');
    expect(message(await addBackdrop(svg, 'huge.svg', 'behind', left.signal))).toMatch(/was stopped/);
  });
});
