/** Measures what each group of lamps brings to a picture, in a process of its own: a small render with a layer a group. */
import { spawn } from 'node:child_process';
import type { Brief } from '../../core/brief/brief';
import type { MeasuredLamp } from '../../core/film/lamp-shares';
import { config } from '../config';

/** `brief` is of the small picture that is rendered for it. */
export interface MeasureJob {
  model: string;
  brief: Brief;
}
export type MeasureSaid = { ok: true; lamps: MeasuredLamp[] } | { ok: false; message: string };

const LONGEST_MS = 5 * 60_000;

export function measureLamps(job: MeasureJob): Promise<MeasureSaid> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [config.built('measure-lamps-worker.mjs')], { cwd: config.root, stdio: ['ignore', 'ignore', 'inherit', 'ipc'], serialization: 'advanced', env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir, SPHAERA_THREADS: String(config.threads) } });
    let said: MeasureSaid = { ok: false, message: 'the measurement broke off; try it again' };
    const limit = setTimeout(() => {
      said = { ok: false, message: 'the measurement took too long; try it when nothing else renders' };
      child.kill('SIGKILL');
    }, LONGEST_MS);
    child.once('message', (message: MeasureSaid) => {
      said = message;
    });
    child.once('error', (error) => {
      said = { ok: false, message: error.message };
    });
    child.once('close', () => {
      clearTimeout(limit);
      resolve(said);
    });
    child.send(job);
  });
}
