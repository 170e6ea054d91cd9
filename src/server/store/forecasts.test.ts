import { describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';
import type { Cost } from '../../core/forecast/costs';

const { project, picture } = await boxProject();
const { denoiseSpeed, findCosts, ratiosOf, saveCosts, saveDenoiseSpeed, savePair } = await import('./forecasts');
const { requestProof } = await import('../usecases/request-proof');
const { changeBrief } = await import('../usecases/change-brief');
const { viewPicture } = await import('../usecases/view-workspace');

/** Proofs of the project, each of another number of samples. */
function proofs(count: number): string[] {
  return Array.from({ length: count }, (_, i) => {
    const { brief } = viewPicture(picture)!.picture;
    changeBrief(picture, { ...brief, quality: { ...brief.quality, samples: 20 + i } }, false);
    const proof = requestProof(picture);
    if (!proof.ok) throw new Error(proof.message);
    return proof.value.id;
  });
}

describe('what is known of forecasts', () => {
  it('gives the ratios of the last eight proofs, newest first', () => {
    expect(ratiosOf(project)).toEqual([]);
    for (const [i, id] of proofs(10).entries()) savePair(id, project, 10, 10 + i, 1000 + i);
    expect(ratiosOf(project)).toEqual([1.9, 1.8, 1.7, 1.6, 1.5, 1.4, 1.3, 1.2]);
    expect(ratiosOf('another')).toEqual([]);
  });

  it('moves the denoiser’s speed towards each new measurement', () => {
    expect(denoiseSpeed()).toBeNull();
    saveDenoiseSpeed(10);
    expect(denoiseSpeed()).toBe(10);
    saveDenoiseSpeed(20);
    expect(denoiseSpeed()).toBeCloseTo(14, 9);
  });

  it('replaces costs that were stopped by whole ones', () => {
    const costs = [{ changes: 1 } as Cost];
    expect(findCosts('key')).toBeNull();
    saveCosts('key', [], false, 1);
    expect(findCosts('key')).toEqual({ costs: [], whole: false });
    saveCosts('key', costs, true, 2);
    expect(findCosts('key')).toEqual({ costs, whole: true });
  });
});
