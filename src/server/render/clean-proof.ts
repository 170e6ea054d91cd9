/** Denoises a proof's film in a process of its own, with progress and a way to stop. */
import { spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { config } from '../config';
import type { CleanResult } from '../../core/finishing/denoise/clean-film';

export interface CleanJob {
  proof: string;
  layers: number;
  width: number;
  height: number;
  /** Luminance of displayed white, cd/m2. */
  white: number;
  /** A look while it is rendered, which the render waits for. */
  look: boolean;
}

export type CleanLine = { share: number } | { result: CleanResult; learned: boolean; quick: boolean };

/**
 * `learned`: by the learned filter; else by our own, because its weights are not installed. `quick`: by the smaller of
 * the learned ones.
 */
export type Cleaned = CleanResult & { learned: boolean; quick: boolean };

/** Gives the result, a sentence that says why there is none, or null when `shouldStop` ended it. */
export async function cleanProof(
  job: CleanJob,
  onShare: (share: number) => void,
  shouldStop: () => boolean
): Promise<Cleaned | string | null> {
  const child = spawn(process.execPath, [config.built('clean-worker.mjs'), JSON.stringify(job)], {
    cwd: config.root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir, SPHAERA_THREADS: String(config.threads) }
  });
  let result: Cleaned | null = null;
  let stopped = false;
  let complaint = '';
  child.stderr.on('data', (chunk: Buffer) => {
    complaint = (complaint + chunk.toString()).slice(-2000);
  });
  createInterface(child.stdout).on('line', (text) => {
    const line = JSON.parse(text) as CleanLine;
    if ('result' in line) result = { ...line.result, learned: line.learned, quick: line.quick };
    else onShare(line.share);
  });
  const looks = setInterval(() => {
    if (!shouldStop()) return;
    stopped = true;
    child.kill('SIGKILL');
  }, 250);
  const code = await new Promise<number | null>((resolve, reject) => {
    child.on('close', resolve);
    child.on('error', reject);
  }).finally(() => clearInterval(looks));
  if (stopped) return null;
  if (code === 0 && result) return result;
  console.error(complaint);
  return `the filter broke off: ${complaint.split('\n').find((l) => /Error/.test(l)) ?? `code ${code}`}`;
}
