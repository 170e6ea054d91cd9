/**
 * Models that we did not make, brought in by every reader: Debian's assimp-testmodels and the test files of the package
 * occt-import-js. What is expected was read from the files themselves.
 */
import { mkdtemp, readdir, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { validateBytes } from 'gltf-validator';
import { describe, expect, it, vi } from 'vitest';
import type { ImportReport } from '../../src/formats/model/import-report';
import { modelFiles } from '../../src/cli/model-files';
import { takenOut } from '../support/taken-out';
import { readScene } from '../../src/formats/gltf/read-scene';
import type { LengthUnit } from '../../src/core/units/units';
import type { Fineness } from '../../src/core/units/read-as';
import { importModel } from '../../src/server/usecases/import-model';

const SAMPLES = '/usr/share/assimp/models';
const SOLIDS = 'node_modules/occt-import-js/test/testfiles';

interface As {
  unit?: LengthUnit;
  up?: 'y' | 'z';
  fineness?: Fineness;
}
async function bringIn(
  path: string,
  { unit, up, fineness }: As = {}
): Promise<{ report: ImportReport; glb: Uint8Array }> {
  const imported = await importModel({
    files: await modelFiles(path),
    unit: unit ?? null,
    up: up ?? null,
    ...(fineness ? { fineness } : {})
  });
  if (!imported.ok) throw new Error(imported.message);
  return imported.value;
}

interface Expected {
  format: string;
  /** Width, height, depth, m. */
  size: [number, number, number];
  triangles: number;
  materials?: string[];
  textures?: number;
}
const models: [string, As, Expected][] = [
  [
    `${SAMPLES}/OBJ/spider.obj`,
    { unit: 'cm', up: 'y' },
    {
      format: 'OBJ',
      size: [1.5059, 0.7974, 1.9338],
      triangles: 1368,
      materials: ['HLeibTex', 'Skin', 'BeinTex', 'Augentex'],
      textures: 4
    }
  ],
  [`${SAMPLES}/OBJ/box_UTF16BE.obj`, { unit: 'm', up: 'y' }, { format: 'OBJ', size: [1, 1, 1], triangles: 12 }],
  [
    `${SAMPLES}/STL/Spider_binary.stl`,
    { unit: 'm', up: 'y' },
    { format: 'STL', size: [6.23, 8, 3.299], triangles: 1368 }
  ],
  [
    `${SAMPLES}/STL/Spider_ascii.stl`,
    { unit: 'm', up: 'y' },
    { format: 'STL (text)', size: [6.23, 8, 3.299], triangles: 1368 }
  ],
  [`${SAMPLES}/PLY/Wuson.ply`, { unit: 'm', up: 'y' }, { format: 'PLY', size: [0.92, 1.516, 3.244], triangles: 3732 }],
  [
    `${SAMPLES}/PLY/cube_binary.ply`,
    { unit: 'cm', up: 'y' },
    { format: 'PLY', size: [0.01, 0.01, 0.01], triangles: 12 }
  ],
  // metres by <unit meter="0.01">, Y up
  [
    `${SAMPLES}/Collada/duck.dae`,
    {},
    { format: 'COLLADA', size: [1.655, 1.54, 1.153], triangles: 4212, materials: ['blinn3'], textures: 1 }
  ],
  // inches, Z up: a cube of 2 in
  [`${SAMPLES}/Collada/cube_with_2UVs.DAE`, {}, { format: 'COLLADA', size: [0.0508, 0.0508, 0.0508], triangles: 12 }],
  // a ZIP of a COLLADA file
  [`${SAMPLES}/Collada/duck.zae`, {}, { format: 'COLLADA', size: [1.655, 1.54, 1.153], triangles: 4212, textures: 1 }],
  // centimetres with a comma for the decimal point; two times 960 polygons of three corners
  [`${SAMPLES}/Collada/earthCylindrical.DAE`, {}, { format: 'COLLADA', size: [0.729, 0.68, 0.819], triangles: 1920 }],
  // millimetres, Z up: 10 x 20 x 30
  [`${SAMPLES}/3MF/box.3mf`, {}, { format: '3MF', size: [0.01, 0.03, 0.02], triangles: 12 }],
  [
    `${SAMPLES}/IFC/AC14-FZK-Haus.ifc`,
    {},
    { format: 'IFC (IFC2X3)', size: [18, 7.318, 16], triangles: 35_792, materials: ['Stahlbeton', 'Leichtbeton'] }
  ],
  // the same cube of 1 m drawn in three units
  ...(['mm', 'm', 'in'] as const).map((unit): [string, As, Expected] => [
    `${SOLIDS}/cube-units/cube-${unit}.step`,
    {},
    { format: 'STEP', size: [1, 1, 1], triangles: 12 }
  ]),
  [`${SOLIDS}/cube-10x10mm/Cube 10x10.igs`, {}, { format: 'IGES', size: [0.01, 0.01, 0.01], triangles: 12 }],
  [`${SOLIDS}/cube-10x10mm/Cube 10x10.stp`, {}, { format: 'STEP', size: [0.01, 0.01, 0.01], triangles: 12 }]
];

describe('models of other makers', () => {
  it.each(models)(
    '%s come in with their size, triangles and materials, as sound glTF',
    async (path, as, expected) => {
      const { report, glb } = await bringIn(path, as);
      expect(report.format).toBe(expected.format);
      for (const [i, metres] of expected.size.entries())
        expect(Math.abs(report.size_m[i]! - metres), `extent ${i}`).toBeLessThan(Math.max(1e-6, metres * 2e-3));
      expect(report.triangles + takenOut(report)).toBe(expected.triangles);
      expect(report.materials).toEqual(expect.arrayContaining(expected.materials ?? []));
      if (expected.textures !== undefined) expect(report.textures).toBe(expected.textures);
      const { issues } = await validateBytes(glb, { maxIssues: 20 });
      expect(issues.messages.filter((m) => m.severity === 0)).toEqual([]);
    },
    60_000
  );

  it('keep the colours of the faces of solids, which the file states as displayed ones', async () => {
    const { glb } = await bringIn(`${SOLIDS}/cax-if/as1-oc-214.stp`);
    const { materials } = await readScene(glb);
    // COLOUR_RGB('', 1., 0.5, 0.): 0.5 is 0.2140 of the light (IEC 61966-2-1)
    const orange = materials.find((m) => m.baseColor[0] > 0.99 && m.baseColor[1] > 0.1 && m.baseColor[2] < 0.01)!;
    expect(orange.baseColor[1]).toBeCloseTo(0.214, 2);
  }, 60_000);

  it('mesh solids more finely when that is asked', async () => {
    const of = async (fineness: Fineness) =>
      (await bringIn(`${SOLIDS}/rounded-cube/rounded-cube.step`, { fineness })).report;
    const [coarse, fine] = [await of('coarse'), await of('fine')];
    expect(fine.triangles).toBeGreaterThan(coarse.triangles * 2);
    expect(fine.changed.join()).toContain('1/10000');
  }, 60_000);

  it('bring the place of a building and its storeys', async () => {
    const { report, glb } = await bringIn(`${SAMPLES}/IFC/AC14-FZK-Haus.ifc`);
    // IFCSITE: (52,31,0), (13,24,0)
    expect(report.site!.latitude_deg).toBeCloseTo(52 + 31 / 60, 6);
    expect(report.site!.longitude_deg).toBeCloseTo(13.4, 6);
    const text = Buffer.from(glb).toString('latin1');
    for (const name of ['0. Erdgeschoss', '1. Dachgeschoss', 'EG-Fenster-6']) expect(text).toContain(name);
    // panes let light through
    expect((await readScene(glb)).materials.some((m) => m.transmission > 0.3)).toBe(true);
  }, 60_000);

  it('take vertex colours and materials by the library beside the model, and say what is not there', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'sphaera-obj-'));
    await writeFile(
      join(folder, 'card.obj'),
      'mtllib card.mtl\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nusemtl pane\nf 1 2 3\nusemtl brass\nf 1 3 4\n'
    );
    await writeFile(
      join(folder, 'card.mtl'),
      'newmtl pane\nKd 0.5 0.5 0.5\nd 0.2\nNi 1.52\n\nnewmtl brass\nKd 0.9 0.6 0.3\nPm 1\nPr 0.25\nmap_Kd gone.jpg\n'
    );
    const { report, glb } = await bringIn(join(folder, 'card.obj'), { unit: 'm', up: 'y' });
    const { materials } = await readScene(glb);
    const [pane, brass] = ['pane', 'brass'].map((name) => materials.find((m) => m.name === name)!);
    expect([pane!.transmission, pane!.ior, pane!.roughness]).toEqual([0.8, 1.52, 0].map((v) => expect.closeTo(v, 5)));
    expect([brass!.metallic, brass!.roughness]).toEqual([1, expect.closeTo(0.25, 5)]);
    expect(brass!.baseColor[1]).toBeCloseTo(0.3185, 3);
    expect(report.missing.join()).toContain('"gone.jpg" was not among the files');
  }, 60_000);
});

const LIST = 'property list uchar int vertex_indices';

/** Files of every kind that something happened to. */
async function damaged(): Promise<[string, Uint8Array][]> {
  const out: [string, Uint8Array][] = [];
  const good: Record<string, string> = {
    obj: `${SAMPLES}/OBJ/spider.obj`,
    stl: `${SAMPLES}/STL/Spider_binary.stl`,
    ply: `${SAMPLES}/PLY/cube_binary.ply`,
    dae: `${SAMPLES}/Collada/duck.dae`,
    zae: `${SAMPLES}/Collada/duck.zae`,
    '3mf': `${SAMPLES}/3MF/box.3mf`,
    ifc: `${SAMPLES}/IFC/AC14-FZK-Haus.ifc`,
    stp: `${SOLIDS}/cax-if/as1-oc-214.stp`,
    igs: `${SOLIDS}/cube-10x10mm/Cube 10x10.igs`
  };
  const noise = Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919 + (i >> 3) * 104_729) & 255);
  for (const [ending, path] of Object.entries(good)) {
    const bytes = new Uint8Array(await readFile(path));
    out.push(
      [`head.${ending}`, bytes.subarray(0, 60)],
      [`noise.${ending}`, noise],
      [`zeros.${ending}`, new Uint8Array(4000)],
      [`text.${ending}`, new TextEncoder().encode('<html><body>404 not found</body></html>'.repeat(20))],
      [`other.${ending}`, new Uint8Array([...'%PDF-1.7\n'].map((c) => c.charCodeAt(0)))]
    );
    if (!['obj', 'ply', 'igs'].includes(ending)) out.push([`half.${ending}`, bytes.subarray(0, bytes.length >> 1)]);
  }
  const text = (name: string, content: string): [string, Uint8Array] => [name, new TextEncoder().encode(content)];
  out.push(
    text(
      'entities.dae',
      `<!DOCTYPE x [<!ENTITY a "${'b'.repeat(1000)}"><!ENTITY c "${'&a;'.repeat(1000)}">]><COLLADA>${'&c;'.repeat(1000)}</COLLADA>`
    ),
    text('deep.dae', `<COLLADA>${'<a>'.repeat(50_000)}${'</a>'.repeat(50_000)}</COLLADA>`),
    text('outside.obj', 'mtllib ../../../../etc/passwd\nv 0 0 0\n'),
    text(
      'many.ply',
      `ply\nformat ascii 1.0\nelement vertex 999999999\nproperty float x\nelement face 999999999\n${LIST}\nend_header\n`
    ),
    text('nan.obj', 'v nan nan nan\nv 1 0 0\nv 0 1 0\nf 1 2 3\n'),
    text('index.obj', 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 99\n'),
    text('one-line.usda', '#usda 1.0\ndef Mesh "m" {}'),
    text('cut.usda', '#usda 1.0\n(\n  metersPerUnit = 1\n'),
    text(
      'points.ply',
      'ply\nformat ascii 1.0\nelement vertex 1\nproperty float x\nproperty float y\nproperty float z\nend_header\n0 0 0\n'
    )
  );
  const counts = new Uint8Array(134);
  new DataView(counts.buffer).setUint32(80, 0xffffffff, true);
  out.push(['counts.stl', counts]);
  return out;
}

describe('damaged, foreign and hostile files', () => {
  it('are refused soon by a sentence that says what to do', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'sphaera-damaged-'));
    // other tests bring models in at the same time
    vi.stubEnv('TMPDIR', folder);
    const files = await damaged();
    expect(files.length).toBeGreaterThanOrEqual(60);
    const faults: string[] = [];
    const seconds: [name: string, seconds: number][] = [];
    const queue = [...files];
    const lane = async () => {
      for (let next = queue.shift(); next; next = queue.shift()) {
        const [name, bytes] = next;
        await writeFile(join(folder, name), bytes);
        const began = Date.now();
        const result = await importModel({ files: [{ path: join(folder, name), name }], unit: 'm', up: 'y' });
        if (result.ok) faults.push(`${name}: accepted with ${result.value.report.triangles} triangles`);
        else if (!/export|bring|replace|save|make|unpack|repair|choose|pack|check/.test(result.message))
          faults.push(`${name}: ${result.message}`);
        else if (/undefined|not a function|null|Error|\bat /.test(result.message))
          faults.push(`${name}: ${result.message}`);
        seconds.push([name, (Date.now() - began) / 1000]);
      }
    };
    await Promise.all([lane(), lane()]);
    expect(faults).toEqual([]);
    // A refusal takes about as long as the start of the importer, whatever else the machine does. One file may meet a
    // stall of the machine; a reader that chews on what it cannot read would show in several.
    const sorted = seconds.map(([, each]) => each).sort((a, b) => a - b);
    const middle = sorted[sorted.length >> 1]!;
    expect(seconds.filter(([, each]) => each > 10 * middle).length).toBeLessThanOrEqual(2);
    // nothing stays behind
    expect((await readdir(folder)).filter((name) => name.startsWith('sphaera-import-'))).toEqual([]);
    vi.unstubAllEnvs();
  }, 400_000);
});
