/** The process that probes a brief; started by probe.ts. */
import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { readScene } from '../../formats/gltf/read-scene';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { findPack, packKey } from '../files/pack-store';
import { answerOnce } from './ask-worker';
import { readCapturedOf } from './captured-file';
import { loadKernel } from './kernel-file';
import { readWebs } from './photometric-files';
import { DARK } from './prepare';
import type { ProbeJob, ProbeSaid } from './probe';
import { prepare } from './session';
import { takeProbe } from './take-probe';

/** Seconds since this process began, less those in which it stood still: its setting up is the processor's work. */
function setUp(): number {
  const { user, system } = process.cpuUsage();
  return Math.min(process.uptime(), (user + system) / 1e6);
}

async function probe({ model, brief }: ProbeJob, _tell: unknown, mayGoOn: () => Promise<void>): Promise<ProbeSaid> {
  await mayGoOn();
  const module = await loadKernel();
  const scene = await readScene(new Uint8Array(await readFile(contentPath('models', model))));
  await mayGoOn();
  const prepared = await prepare({
    scene,
    brief,
    captured: await readCapturedOf(brief.surroundings),
    webs: await readWebs(brief),
    module,
    threads: config.threads,
    findPack: (input, build) => findPack(packKey(model, input), build)
  });
  if (prepared.dark) return { ok: false, message: DARK };
  return { ok: true, probe: await takeProbe(prepared, module, config.threads, setUp, mayGoOn) };
}

// what someone waits for comes first
try {
  setPriority(15);
} catch {
  // not allowed everywhere
}
answerOnce(probe);
