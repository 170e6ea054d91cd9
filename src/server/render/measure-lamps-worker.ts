/**
 * The process that measures what each group of lamps brings to a picture, and what those cost that bring nothing;
 * started by measure-lamps.ts, takes its job and says its result as messages.
 */
import { readFile } from 'node:fs/promises';
import type { Brief } from '../../core/brief/brief';
import { tilesOf } from '../../core/film/film';
import { isWithoutEffect, LampShares } from '../../core/film/lamp-shares';
import { MemoryFilm } from '../../core/film/store';
import { takeSaving } from '../../core/forecast/costs';
import { readScene } from '../../formats/gltf/read-scene';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { findPack, packKey } from '../files/pack-store';
import { answerOnce } from './ask-worker';
import { readCapturedOf } from './captured-file';
import { loadKernel } from './kernel-file';
import type { MeasureJob, MeasureSaid } from './measure-lamps';
import { readWebs } from './photometric-files';
import { type Prepared, prepare, run } from './session';

const SAMPLES = 64;
// For the cost: the least of so many runs with few samples, each way in turn.
const RUNS = 3;
const RUN_SAMPLES = 12;

async function measure({ model, brief }: MeasureJob): Promise<MeasureSaid> {
  const module = await loadKernel();
  const scene = await readScene(new Uint8Array(await readFile(contentPath('models', model))));
  const captured = await readCapturedOf(brief.surroundings);
  const webs = await readWebs(brief);
  const ready = (of: Brief, samples: number, layers: boolean) =>
    prepare({
      scene,
      brief: {
        ...of,
        exposure: { ev100: 10 },
        quality: { ...of.quality, samples, grain: null, minutes: null, layers, aids: false }
      },
      captured,
      webs,
      module,
      threads: config.threads,
      findPack: (input, build) => findPack(packKey(model, input), build)
    });
  const take = async (prepared: Prepared) => {
    const film = new MemoryFilm();
    const began = performance.now();
    await run(prepared, film, module, config.threads, {});
    return { film, ms: performance.now() - began };
  };

  const whole = await ready(brief, SAMPLES, true);
  if (whole.dark) return { ok: false, message: 'no light reaches this picture at all; switch a lamp on first' };
  const { width, height } = whole.settings;
  const { film } = await take(whole);
  const shares = new LampShares(whole.layers.groups);
  for (const tile of tilesOf(width, height)) shares.add(tile, await film.read(tile.index));
  const found = shares.result();

  const idle = found.filter((s, i) => i > 1 && isWithoutEffect(s));
  const costs = new Map<string, number>();
  if (idle.length > 0) {
    const all = await ready(brief, RUN_SAMPLES, false);
    for (const { group } of idle) {
      const less = await ready({ ...brief, ...takeSaving({ kind: 'lamps', group }, brief) }, RUN_SAMPLES, false);
      let [most, least] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
      for (let i = 0; i < RUNS; i++) {
        most = Math.min(most, (await take(all)).ms);
        least = Math.min(least, (await take(less)).ms);
      }
      costs.set(group, Math.max(0, 1 - least / most));
    }
  }
  return { ok: true, lamps: found.map((s) => ({ ...s, time: costs.get(s.group) ?? null })) };
}

answerOnce(measure);
