/**
 * The forecast against the time really taken, over the demo pictures and four sizes, with and without a grain to stop
 * at: every pair, how many of ten are within 20 %, and the farthest off. Rendering alone, on all threads; what earlier
 * proofs taught is left out, then put in, by project.
 */
import { tilesOf } from '../../src/core/film/film';
import { MemoryFilm } from '../../src/core/film/store';
import { type ForecastOf, forecast, median } from '../../src/core/forecast/forecast';
import { resolveSize, scaleSize } from '../../src/core/output/size';
import { DEMO_PROJECTS } from '../../src/demo/projects';
import { writeModel } from '../../src/drawing/write-model';
import { readScene } from '../../src/formats/gltf/read-scene';
import { renderFilm } from '../../src/kernel/host/render-film';
import { layOut } from '../../src/kernel/host/settings';
import { config } from '../../src/server/config';
import { loadKernel } from '../../src/server/render/kernel-file';
import { openPool } from '../../src/server/render/node-threads';
import { prepare } from '../../src/server/render/session';
import { takeProbe } from '../../src/server/render/take-probe';

const LONG_SIDES_PX = [320, 640, 1000, 1600];
// Few samples for the large ones: a run is to take half a minute at most.
const GOALS = [
  { samples: 64, grain: 5 },
  { samples: 64, grain: 5 },
  { samples: 12, grain: null },
  { samples: 6, grain: null }
];
const module = await loadKernel();
const pairs: { project: string; said: number; took: number }[] = [];
console.log(
  '| picture | size, px | goal | forecast, s | took, s | off | samples said | samples taken |\n| --- ' +
    '| --- | --- | --- | --- | --- | --- | --- |'
);
for (const { name: project, model, pictures } of DEMO_PROJECTS) {
  const scene = await readScene(await writeModel(model()));
  for (const { name, brief } of pictures) {
    const whole = resolveSize(brief.size);
    const longest = Math.max(whole.width_px, whole.height_px);
    const of = (px: number) =>
      prepare({
        scene,
        brief: { ...brief, size: scaleSize(whole, px / longest), quality: { ...brief.quality, scale: 1 } },
        captured: null,
        module,
        threads: config.threads
      });
    const probe = await takeProbe(
      await of(1024),
      module,
      config.threads,
      () => 0,
      async () => {}
    );
    for (const [i, px] of LONG_SIDES_PX.entries()) {
      const prepared = await of(px);
      const { width, height } = prepared.settings;
      const goal = GOALS[i]!;
      const what: ForecastOf = {
        width_px: width,
        height_px: height,
        ...goal,
        min_samples: 0,
        minutes: null,
        denoised: false
      };
      const said = forecast(probe, { threads: config.threads, denoiseSecondsPerMegapixel: null, ratios: [] }, what);
      const pool = openPool(module, layOut(prepared.packed, prepared.settings, config.threads));
      const end = await renderFilm(pool, new MemoryFilm(), tilesOf(width, height), {
        ...goal,
        seconds: null,
        white: prepared.white
      });
      await pool.close();
      pairs.push({ project, said: said.renderSeconds, took: end.seconds });
      console.log(
        `| ${name} | ${width} x ${height} | ${goal.samples} ` +
          `samples${goal.grain === null ? '' : `, grain ${goal.grain}`} | ` +
          `${said.renderSeconds.toFixed(1)} | ${end.seconds.toFixed(1)} | ` +
          `${(100 * (said.renderSeconds / end.seconds - 1)).toFixed(0)} % | ${said.samples.toFixed(1)} ` +
          `| ${end.samples.toFixed(1)} |`
      );
    }
  }
}

function judge(label: string, ratios: readonly number[]): void {
  const within = ratios.filter((r) => r > 1 / 1.2 && r < 1.2).length;
  console.log(
    `${label}: ${within} of ${ratios.length} within 20 %, farthest ` +
      `${Math.max(...ratios.map((r) => Math.max(r, 1 / r))).toFixed(2)} times off`
  );
}
judge(
  'from the probe alone',
  pairs.map((p) => p.said / p.took)
);
judge(
  'taught by the other proofs of the project',
  pairs.map(
    (p) =>
      (p.said * median(pairs.filter((q) => q !== p && q.project === p.project).map((q) => q.took / q.said))) / p.took
  )
);
process.exit(0);
