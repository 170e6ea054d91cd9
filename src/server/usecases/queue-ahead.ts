/** What renders and waits on this machine, as a new render sees it. */
import { readBrief } from '../../core/brief/read-brief';
import { type Ahead, aheadOf, type Work } from '../../core/forecast/ahead';
import { forecast, type Machine } from '../../core/forecast/forecast';
import { forecastOf } from '../../core/forecast/forecast-of';
import type { Job } from '../../core/job/job';
import { config } from '../config';
import { probeKey } from '../render/probe-key';
import { denoiseSpeed, findProbe, ratiosOf } from '../store/forecasts';
import { sqliteQueue as queue } from '../store/job-queue';
import { findRevision } from '../store/projects';
import { findProof } from '../store/proofs';

/** What forecasts need of this machine and of a project's earlier proofs. */
export const machineOf = (project: string): Machine => ({
  threads: config.threads,
  denoiseSecondsPerMegapixel: denoiseSpeed(),
  ratios: ratiosOf(project)
});

export function queueAhead(): Ahead {
  const works = queue.open('render').flatMap((job) => workOf(job) ?? []);
  return aheadOf(works, { threads: config.threads, denoiseSecondsPerMegapixel: denoiseSpeed(), ratios: [] });
}

function workOf({ state, proof, project }: Job): Work | null {
  const row = proof === null ? null : findProof(proof);
  if (!row) return null;
  const brief = readBrief(row.brief_json);
  const revision = findRevision(row.revision_id);
  const probe = revision && findProbe(probeKey(revision.glb_sha256, brief));
  return {
    secondsLeft: state.name === 'running' ? state.secondsLeft : null,
    forecastSeconds: probe ? forecast(probe, machineOf(project!), forecastOf(brief)).seconds : null,
    pixels: row.width_px * row.height_px,
    samples: brief.quality.samples,
    denoised:
      brief.finish.denoise > 0 && (state.name !== 'running' || state.phase === 'setup' || state.phase === 'render')
  };
}
