/** The denoising filter of this installation: the learned one, or our own where its weights are missing. */
import { readFile } from 'node:fs/promises';
import type { Filter } from '../../core/finishing/denoise/filter';
import { createNodeFilter } from '../../denoise/node-filter';
import { guidedFilter } from '../../kernel/host/guided-filter';
import { config } from '../config';
import { loadKernel } from './kernel-file';

/**
 * `quick`: the smaller learned one, a sixth of the work, for first samples and for looks while a picture is rendered.
 */
export async function openFilter(threads: number, quick = false): Promise<{ filter: Filter; learned: boolean }> {
  const read = (of: Parameters<typeof config.weights>[0]) => readFile(config.weights(of)).catch(() => null);
  const weights = await read(quick ? 'small' : 'filter');
  if (quick && weights) return { filter: await createNodeFilter(weights, threads), learned: true };
  const [reflectance, normal] = [await read('reflectance'), await read('normal')];
  if (weights && reflectance && normal)
    return { filter: await createNodeFilter(weights, threads, { reflectance, normal }), learned: true };
  return { filter: guidedFilter(await loadKernel()), learned: false };
}
