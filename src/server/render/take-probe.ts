/**
 * Renders the patches of a probe at two sizes of a prepared picture. Time is the processor's, not the clock's: what
 * else runs meanwhile counts for little.
 */
import { layerCount } from '../../core/film/film';
import { MemoryFilm } from '../../core/film/store';
import type { Probe, ProbeAt } from '../../core/forecast/forecast';
import { probePatches } from '../../core/forecast/patches';
import type { TilePool } from '../../kernel/host/pool';
import { renderFilm } from '../../kernel/host/render-film';
import { layOut } from '../../kernel/host/settings';
import { openPool } from './node-threads';
import type { Prepared } from './session';

/** Long sides of the pictures that patches are taken of. */
const LONG_SIDES_PX = [512, 2560] as const;
const SAMPLES = 16;
// The first samples run in code that is not yet compiled in full.
const WARM_UP = 4;

/** `setUp`: asked when the first pool is warm, seconds since the work began. `mayGoOn`: awaited before every patch. */
export async function takeProbe(
  { packed, settings, white, layers }: Prepared,
  module: WebAssembly.Module,
  threads: number,
  setUp: () => number,
  mayGoOn: () => Promise<void>
): Promise<Probe> {
  const longest = Math.max(settings.width, settings.height);
  let setupSeconds = 0;
  const at: ProbeAt[] = [];
  for (const px of LONG_SIDES_PX) {
    const [width, height] = [settings.width, settings.height].map((side) =>
      Math.max(1, Math.round((side * px) / longest))
    ) as [number, number];
    const pool = openPool(module, layOut(packed, { ...settings, width, height }, threads));
    const oneAtATime: TilePool = {
      threads: pool.threads,
      layers: pool.layers,
      async render(...work) {
        await mayGoOn();
        return pool.render(...work);
      }
    };
    try {
      const patches = probePatches(width, height);
      const pixels = patches.reduce((sum, p) => sum + p.width * p.height, 0);
      const render = (samples: number, film: MemoryFilm) =>
        renderFilm(oneAtATime, film, patches, { samples, grain: null, seconds: null, white });
      await render(WARM_UP, new MemoryFilm());
      setupSeconds ||= setUp();
      const film = new MemoryFilm();
      const before = process.cpuUsage();
      await render(SAMPLES, film);
      const used = process.cpuUsage(before);
      at.push({
        longSide_px: px,
        secondsPerSample: (used.user + used.system) / 1e6 / (pixels * SAMPLES),
        squaredGrain: patches.map((p) => (film.state(p.index)!.squaredGrain / (p.width * p.height)) * SAMPLES)
      });
    } finally {
      await pool.close();
    }
  }
  return {
    setupSeconds,
    at: [at[0]!, at[1]!],
    memoryBytes: process.resourceUsage().maxRSS * 1024,
    layers: layerCount(layers)
  };
}
