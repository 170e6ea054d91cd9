/** The denoising filter of this installation: the learned one, or our own where its weights are missing. */
import { readFile } from 'node:fs/promises';
import type { Filter } from '../../core/finishing/denoise/filter';
import { createNodeFilter } from '../../denoise/node-filter';
import { guidedFilter } from '../../kernel/host/guided-filter';
import { config } from '../config';
import { loadKernel } from './kernel-file';

export async function openFilter(threads: number): Promise<{ filter: Filter; learned: boolean }> {
  const [weights, reflectance, normal] = await Promise.all((['filter', 'reflectance', 'normal'] as const).map((of) => readFile(config.weights(of)).catch(() => null)));
  if (!weights || !reflectance || !normal) return { filter: guidedFilter(await loadKernel()), learned: false };
  return { filter: await createNodeFilter(weights, threads, { reflectance, normal }), learned: true };
}
