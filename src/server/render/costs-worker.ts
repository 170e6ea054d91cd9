/** The process that measures what costs time in a brief; started by costs.ts. */
import { readFile } from 'node:fs/promises';
import { type Brief, setAsideOf } from '../../core/brief/brief';
import { AID_MATERIALS, CHANNELS, ID_PLACES, layerCount, type TileRect } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import { type Cost, type Saving, takeSaving } from '../../core/forecast/costs';
import { probePatches } from '../../core/forecast/patches';
import { isPlain } from '../../core/scene/plain-materials';
import { displayedLightness } from '../../core/quality/grain';
import { readScene } from '../../formats/gltf/read-scene';
import { renderFilm } from '../../kernel/host/render-film';
import { layOut } from '../../kernel/host/settings';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { findPack, packKey } from '../files/pack-store';
import { answerOnce } from './ask-worker';
import { readCapturedOf } from './captured-file';
import type { CostsJob, CostsSaid } from './costs';
import { loadKernel } from './kernel-file';
import { openPool } from './node-threads';
import { readWebs } from './photometric-files';
import { DARK } from './prepare';
import { type Prepared, prepare } from './session';

const SAMPLES = 8;
const WARM_UP = 4;
const LOOK_SAMPLES = 4;
const LEAST_COVERED = 0.03;
// The least of so many runs, the whole and the lesser in turn: what else runs on the machine only ever adds.
const RUNS = 3;

async function measure({ model, brief, savings, materials }: CostsJob): Promise<CostsSaid> {
  const module = await loadKernel();
  const scene = await readScene(new Uint8Array(await readFile(contentPath('models', model))));
  const captured = await readCapturedOf(brief.surroundings);
  // quick looks alone leave things out, so all are looked at as one
  const quick = (of: Brief): Brief => ({ ...of, quality: { ...of.quality, step: 'study' } });
  const ready = async (of: Brief, ev100: number | null) => prepare({ scene, brief: ev100 === null ? quick(of) : { ...quick(of), exposure: { ev100 } }, captured, webs: await readWebs(of), module, threads: config.threads, findPack: (input, build) => findPack(packKey(model, input), build) });
  const whole = await ready(brief, null);
  if (whole.dark) return { ok: false, message: DARK };
  const { width, height } = whole.settings;
  const patches = probePatches(width, height);
  const open = async ({ packed, settings, white }: Prepared) => {
    const pool = openPool(module, layOut(packed, settings, config.threads));
    const take = async (samples: number) => {
      const film = new MemoryFilm();
      const before = process.cpuUsage();
      await renderFilm(pool, film, patches, { samples, grain: null, seconds: null, white });
      const { user, system } = process.cpuUsage(before);
      return { film, time: user + system };
    };
    await take(WARM_UP);
    return { take, close: () => pool.close() };
  };
  const lightnesses = async (film: MemoryFilm): Promise<Float64Array> => {
    const out = new Float64Array(patches.reduce((sum, p) => sum + p.width * p.height, 0));
    const k = 1 / (SAMPLES * whole.white);
    let at = 0;
    for (const patch of patches) {
      const data = await film.read(patch.index);
      for (let i = 0; i < patch.width * patch.height; i++, at++) {
        const p = i * CHANNELS;
        out[at] = displayedLightness((data[p]! + data[p + 3]!) * k, (data[p + 1]! + data[p + 4]!) * k, (data[p + 2]! + data[p + 5]!) * k);
      }
    }
    return out;
  };
  /** Those that are worth making plain, by what they cover of the patches. */
  const coveringMaterials = async (): Promise<Saving[]> => {
    const looked = await ready({ ...brief, quality: { ...brief.quality, aids: true, layers: false } }, whole.ev100);
    const pool = openPool(module, layOut(looked.packed, looked.settings, config.threads));
    const film = new MemoryFilm();
    await renderFilm(pool, film, patches, { samples: LOOK_SAMPLES, grain: null, seconds: null, white: looked.white });
    await pool.close();
    const shares = new Map<number, number>();
    let all = 0;
    for (const patch of patches) {
      const pixels = patch.width * patch.height;
      const data = await film.read(patch.index);
      all += pixels * LOOK_SAMPLES;
      for (let i = 0; i < pixels; i++) {
        const first = pixels * CHANNELS + i * layerCount(looked.layers) * 3 + looked.layers.groups.length * 3 + AID_MATERIALS;
        for (let c = 0; c < ID_PLACES; c++) {
          const id = data[first + c * 2]!;
          if (id > 0) shares.set(id, (shares.get(id) ?? 0) + data[first + c * 2 + 1]!);
        }
      }
    }
    const done = new Set(setAsideOf(quick(brief)).plain);
    return [...shares]
      .map(([id, count]) => ({ material: scene.materials[id - 1], covers: count / all }))
      .filter(({ material, covers }) => material && material.name !== '' && !isPlain(material) && !done.has(material.name) && covers >= LEAST_COVERED)
      .sort((a, b) => b.covers - a.covers)
      .slice(0, materials)
      .map(({ material, covers }) => ({ kind: 'material', name: material!.name, covers }));
  };
  const costs: Cost[] = [];
  const all = await open(whole);
  try {
    const seen = await lightnesses((await all.take(SAMPLES)).film);
    for (const saving of [...savings, ...(await coveringMaterials())]) {
      const less = await open(await ready({ ...brief, ...takeSaving(saving, brief) }, whole.ev100));
      try {
        let [most, least] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
        let film = new MemoryFilm();
        for (let i = 0; i < RUNS; i++) {
          most = Math.min(most, (await all.take(SAMPLES)).time);
          const run = await less.take(SAMPLES);
          least = Math.min(least, run.time);
          film = run.film;
        }
        const without = await lightnesses(film);
        costs.push({ saving, saves: 1 - least / most, ...changeOf(seen, without, patches, width, height) });
      } finally {
        await less.close();
      }
    }
  } finally {
    await all.close();
  }
  return { ok: true, costs };
}

/** Mean difference of lightness, and the middle of the patch where it is greatest. */
function changeOf(seen: Float64Array, without: Float64Array, patches: readonly TileRect[], width: number, height: number): Pick<Cost, 'changes' | 'at'> {
  let [sum, greatest, at, i] = [0, -1, { x: 0.5, y: 0.5 }, 0];
  for (const patch of patches) {
    let own = 0;
    for (const end = i + patch.width * patch.height; i < end; i++) own += Math.abs(seen[i]! - without[i]!);
    sum += own;
    if (own <= greatest) continue;
    greatest = own;
    at = { x: (patch.x + patch.width / 2) / width, y: (patch.y + patch.height / 2) / height };
  }
  return { changes: sum / seen.length, at };
}

answerOnce(measure);
