import { describe, expect, it } from 'vitest';
import { dark, glowing, makeScene, matte, quad, renderScene, sphere, viewFrom } from '../../../tests/support/scenes';
import { displayedLightness } from '../../core/quality/grain';

describe('grain', () => {
  it(
    'says on average what the error really is: within 10 % over 64 independent renders (at few samples ' +
      'the tone curve squeezes the halves more than their mean, and it says less)',
    () => {
      const scene = makeScene([
        quad([-2, 0, 2], [2, 0, 2], [2, 0, -2], [-2, 0, -2], matte([0.6, 0.4, 0.3])),
        quad([-2, 0, -2], [2, 0, -2], [2, 3, -2], [-2, 3, -2], matte(0.7)),
        sphere([0, 0.6, 0], 0.6, { metallic: 1, roughness: 0.4, baseColor: [0.9, 0.7, 0.4, 1] }, false, 24, 48),
        quad([-0.5, 2.5, -0.5], [0.5, 2.5, -0.5], [0.5, 2.5, 0.5], [-0.5, 2.5, 0.5], glowing(30))
      ]);
      const white = 4;
      const runs = Array.from({ length: 64 }, (_, seed) =>
        renderScene(scene, viewFrom([0, 1.2, 4], [0, 0.8, 0]), {
          width: 16,
          height: 16,
          samples: 128,
          bounces: 4,
          light: dark,
          seed,
          white
        })
      );
      const shown = runs.map((run) =>
        run.pixels.map(([r, g, b]) => displayedLightness(r / white, g / white, b / white))
      );
      const means = shown[0]!.map((_, i) => shown.reduce((sum, run) => sum + run[i]!, 0) / shown.length);
      const squared = shown.flatMap((run) => run.map((l, i) => (l - means[i]!) ** 2));
      // the mean was taken of the same runs
      const error = Math.sqrt((squared.reduce((a, b) => a + b) / squared.length) * (shown.length / (shown.length - 1)));
      const stated = Math.sqrt(runs.reduce((sum, run) => sum + run.grain ** 2, 0) / runs.length);
      expect(error).toBeGreaterThan(0.3);
      expect(Math.abs(stated / error - 1)).toBeLessThan(0.1);
    }
  );
});
