/** Renders the patches of a probe, which forecasts are made from. */
import { config } from '../config';
import { giveWayTo, serveTask } from '../jobs/serve-task';
import { refuseDark } from '../../core/recipe/light';
import { openStoredScene } from '../render/stored-scene';
import { takeProbe } from '../render/take-probe';

/** Seconds since this process began, less those in which it stood still: its setting up is the processor's work. */
function setupSeconds(): number {
  const { user, system } = process.cpuUsage();
  return Math.min(process.uptime(), (user + system) / 1e6);
}

giveWayTo(15);
serveTask('probe', async ({ model, brief }, { untilResumed }) => {
  await untilResumed();
  const stored = await openStoredScene(model, brief.surroundings);
  await untilResumed();
  const prepared = await stored.prepare(brief);
  refuseDark(prepared);
  return takeProbe(prepared, stored.module, config.threads, setupSeconds, untilResumed);
});
