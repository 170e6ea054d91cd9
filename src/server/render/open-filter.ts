/** The denoising filter of this installation: the learned one, or our own where its weights are missing. */
import { readFile } from 'node:fs/promises';
import type { Filter } from '../../core/finishing/denoise/filter';
import { createNodeFilter } from '../../denoise/node-filter';
import { guidedFilter } from '../../kernel/host/guided-filter';
import { config } from '../config';
import { loadKernel } from './kernel-file';

/** `quick`: the smaller learned one, a sixth of the work, for first samples and for looks while a picture is rendered. */
export async function openFilter(threads: number, quick = false): Promise<{ filter: Filter; learned: boolean }> {
  const [weights, reflectance, normal] = await Promise.all(([quick ? 'small' : 'filter', 'reflectance', 'normal'] as const).map((of) => readFile(config.weights(of)).catch(() => null)));
  if (!weights || !reflectance || !normal) return { filter: guidedFilter(await loadKernel()), learned: false };
  return { filter: await createNodeFilter(weights, threads, quick ? undefined : { reflectance, normal }), learned: true };
}
