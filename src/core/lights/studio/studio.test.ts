import { describe, expect, it } from 'vitest';
import { buildStudio } from './studio';

const options = { min: [-0.1, 0, -0.1] as const, max: [0.1, 0.5, 0.1] as const, rotationDeg: 0, brightnessEv: 0, cameraDistance: 2 };

describe('studio', () => {
  it('stands the model on its paper and reaches beyond the camera', () => {
    const { surfaces } = buildStudio(options);
    const paper = surfaces.find((s) => s.kind === 'paper')!;
    let lowest = Number.POSITIVE_INFINITY;
    let widest = 0;
    for (let i = 0; i < paper.positions.length; i += 3) {
      lowest = Math.min(lowest, paper.positions[i + 1]!);
      widest = Math.max(widest, Math.hypot(paper.positions[i]!, paper.positions[i + 2]!));
    }
    expect(lowest).toBeLessThanOrEqual(0);
    expect(lowest).toBeGreaterThan(-1e-3);
    expect(widest).toBeGreaterThan(2);
  });
  it('is sized by the model: ten times the model has ten times the softbox', () => {
    const box = (k: number) => buildStudio({ ...options, min: [-0.1 * k, 0, -0.1 * k], max: [0.1 * k, 0.5 * k, 0.1 * k], cameraDistance: 2 * k }).surfaces[1]!.positions;
    const side = (p: Float32Array) => Math.hypot(p[3]! - p[0]!, p[4]! - p[1]!, p[5]! - p[2]!);
    expect(side(box(10)) / side(box(1))).toBeCloseTo(10, 4);
  });
  it('turns with its rotation and brightens by stops', () => {
    const a = buildStudio(options).surfaces[1]!;
    const b = buildStudio({ ...options, rotationDeg: 180, brightnessEv: 1 }).surfaces[1]!;
    expect(b.positions[0]).toBeCloseTo(-a.positions[0]!, 4);
    expect(b.radiance[0] / a.radiance[0]).toBeCloseTo(2);
  });
});
