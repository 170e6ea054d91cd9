/** The process that measures what costs time in a brief; started by costs.ts. */
import { readFile } from 'node:fs/promises';
import { type Brief, setAsideOf } from '../../core/brief/brief';
import { ID_PLACES } from '../../core/film/film';
import { MemoryFilm, reopen } from '../../core/film/store';
import { changeBetween, lightnessesOf } from '../../core/forecast/change';
import { type Cost, LEAST_CHANGE, type Saving, takeSaving } from '../../core/forecast/costs';
import { probePatches } from '../../core/forecast/patches';
import { coarserWidths, valuesWithLevels } from '../../core/lights/captured/levels';
import { isPlain } from '../../core/scene/plain-materials';
import { readScene } from '../../formats/gltf/read-scene';
import { renderFilm } from '../../kernel/host/render-film';
import { layOut } from '../../kernel/host/settings';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { findPack, packKey } from '../files/pack-store';
import { answerOnce } from './ask-worker';
import { readCapturedOf } from './captured-file';
import type { CostsJob, CostsSaid } from './costs';
import { extraChannels, readExtra } from './extra-channels';
import { loadKernel } from './kernel-file';
import { openPool } from './node-threads';
import { readWebs } from './photometric-files';
import { DARK } from './prepare';
import { type Prepared, prepare } from './session';

const SAMPLES = 8;
const WARM_UP = 4;
const LOOK_SAMPLES = 4;
const LEAST_COVERED = 0.03;
// The least of so many runs, the whole and the lesser in turn: what else runs on the machine only ever adds. Each takes the film further.
const RUNS = 3;

/** Patches of a picture, taken to more and more samples. */
async function openPatches({ packed, settings, white }: Prepared, module: WebAssembly.Module) {
  const patches = probePatches(settings.width, settings.height);
  const pool = openPool(module, layOut(packed, settings, config.threads));
  /** Takes a film to so many samples; processor time in microseconds. */
  const take = async (samples: number, film: MemoryFilm) => {
    await reopen(film, patches);
    const before = process.cpuUsage();
    await renderFilm(pool, film, patches, { samples, grain: null, seconds: null, white });
    const { user, system } = process.cpuUsage(before);
    return user + system;
  };
  await take(WARM_UP, new MemoryFilm());
  return { take, patches, settings, seen: (film: MemoryFilm) => lightnessesOf(film, patches, RUNS * SAMPLES, white), close: () => pool.close() };
}
type Patches = Awaited<ReturnType<typeof openPatches>>;

/** Both in turn. */
async function compare(whole: Patches, less: Patches): Promise<Omit<Cost, 'saving'>> {
  let [most, least] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  const [film, lesser] = [new MemoryFilm(), new MemoryFilm()];
  for (let run = 1; run <= RUNS; run++) {
    most = Math.min(most, await whole.take(run * SAMPLES, film));
    least = Math.min(least, await less.take(run * SAMPLES, lesser));
  }
  return { saves: 1 - least / most, ...changeBetween(await whole.seen(film), await less.seen(lesser), whole.patches, whole.settings) };
}

async function measure({ model, brief, savings, materials, size }: CostsJob): Promise<CostsSaid> {
  const module = await loadKernel();
  const scene = await readScene(new Uint8Array(await readFile(contentPath('models', model))));
  const captured = await readCapturedOf(brief.surroundings);
  // quick looks alone leave things out, so all are looked at as one
  const quick = (of: Brief): Brief => ({ ...of, quality: { ...of.quality, step: 'study' } });
  const ready = async (of: Brief, ev100: number | null) => prepare({ scene, brief: ev100 === null ? quick(of) : { ...quick(of), exposure: { ev100 } }, captured, webs: await readWebs(of), module, threads: config.threads, findPack: (input, build) => findPack(packKey(model, input), build) });
  const whole = await ready(brief, null);
  if (whole.dark) return { ok: false, message: DARK };
  const { ev100 } = whole;
  const measured = async (from: Patches, of: Brief, saving: Saving): Promise<Cost> => {
    const less = await openPatches(await ready({ ...of, ...takeSaving(saving, of) }, ev100), module);
    try {
      return { saving, ...(await compare(from, less)) };
    } finally {
      await less.close();
    }
  };
  /** Those that are worth making plain, by what they cover of the patches. */
  const coveringMaterials = async (): Promise<Saving[]> => {
    const looked = await ready({ ...brief, quality: { ...brief.quality, aids: true, layers: false } }, ev100);
    const patches = probePatches(looked.settings.width, looked.settings.height);
    const pool = openPool(module, layOut(looked.packed, looked.settings, config.threads));
    const film = new MemoryFilm();
    await renderFilm(pool, film, patches, { samples: LOOK_SAMPLES, grain: null, seconds: null, white: looked.white });
    await pool.close();
    const names = extraChannels(looked.layers);
    const first = names.indexOf('material.id0');
    const extra = new Float32Array(names.length);
    const shares = new Map<number, number>();
    let pixels = 0;
    for (const patch of patches) {
      const own = patch.width * patch.height;
      const data = await film.read(patch.index);
      pixels += own;
      for (let i = 0; i < own; i++) {
        readExtra(data, i, own, looked.layers, 1 / LOOK_SAMPLES, extra, 0);
        for (let c = first; c < first + 2 * ID_PLACES; c += 2) if (extra[c]! > 0) shares.set(extra[c]!, (shares.get(extra[c]!) ?? 0) + extra[c + 1]!);
      }
    }
    const done = new Set(setAsideOf(quick(brief)).plain);
    return [...shares]
      .map(([id, count]) => ({ material: scene.materials[id - 1], covers: count / pixels }))
      .filter(({ material, covers }) => material && material.name !== '' && !isPlain(material) && !done.has(material.name) && covers >= LEAST_COVERED)
      .sort((a, b) => b.covers - a.covers)
      .slice(0, materials)
      .map(({ material, covers }) => ({ kind: 'material', name: material!.name, covers }));
  };
  /** The coarsest copy of the captured image that shows the same: at the whole size, where its fineness would be seen. */
  const coarserImage = async ({ width, height }: { width: number; height: number }): Promise<Cost[]> => {
    const full: Brief = { ...brief, size };
    const from = await openPatches(await ready(full, ev100), module);
    const bytesOf = (w: number) => Float32Array.BYTES_PER_ELEMENT * valuesWithLevels(w, Math.floor((w * height) / width));
    let found: Cost[] = [];
    try {
      for (const to of coarserWidths(width)) {
        const cost = await measured(from, full, { kind: 'captured', from: width, to, bytes: bytesOf(width) - bytesOf(to) });
        if (cost.changes >= LEAST_CHANGE) break;
        found = [cost];
      }
    } finally {
      await from.close();
    }
    return found;
  };
  const costs: Cost[] = [];
  const all = await openPatches(whole, module);
  try {
    for (const saving of [...savings, ...(await coveringMaterials())]) costs.push(await measured(all, brief, saving));
  } finally {
    await all.close();
  }
  if (captured && whole.settings.light.image) costs.push(...(await coarserImage(whole.settings.light.image)));
  return { ok: true, costs };
}

answerOnce(measure);
