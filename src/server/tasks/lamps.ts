/** Measures what each group of lamps contributes to a picture, and what those cost that contribute nothing. */
import type { Brief } from '../../core/brief/brief';
import { tilesOf } from '../../core/film/film';
import { isWithoutEffect, LampShares } from '../../core/film/lamp-shares';
import { MemoryFilm } from '../../core/film/store';
import { takeSaving } from '../../core/forecast/costs';
import { Refusal } from '../../core/result/result';
import { config } from '../config';
import { serveTask } from '../jobs/serve-task';
import { type Prepared, run } from '../render/session';
import { openStoredScene } from '../render/stored-scene';

const SAMPLES = 64;
// For the cost: the least of so many runs with few samples, each way in turn.
const RUNS = 3;
const RUN_SAMPLES = 12;

serveTask('lamps', async ({ model, brief }) => {
  const stored = await openStoredScene(model, brief.surroundings);
  const ready = (of: Brief, samples: number, layers: boolean) =>
    stored.prepare({
      ...of,
      exposure: { ev100: 10 },
      quality: { ...of.quality, samples, grain: null, minutes: null, layers, aovs: false }
    });
  const take = async (prepared: Prepared) => {
    const film = new MemoryFilm();
    const began = performance.now();
    await run(prepared, film, stored.module, config.threads, {});
    return { film, ms: performance.now() - began };
  };

  const whole = await ready(brief, SAMPLES, true);
  if (whole.dark) throw new Refusal('dark', 'no light reaches this picture at all; switch a lamp on first');
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
  return found.map((s) => ({ ...s, time: costs.get(s.group) ?? null }));
});
