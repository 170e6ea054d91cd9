import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief } from '../brief/brief';
import { proofPixels } from '../output/size';
import { CROP_PX, cropBrief, tellingPlace } from './crop';
import type { Probe } from './forecast';
import { probePatches } from './patches';

const brief: Brief = { ...BRIEF_DEFAULTS, size: { width_px: 3000, height_px: 2000 } };

describe('a piece of a picture', () => {
  it('is of so many pixels at every scale, about the same place, inside the sheet', () => {
    for (const scale of [1, 0.5, 0.25]) {
      for (const place of [
        { x: 0.4, y: 0.6 },
        { x: 0, y: 1 }
      ]) {
        const { x, y, width, height, sheetWidth, sheetHeight } = proofPixels(
          cropBrief({ ...brief, quality: { ...brief.quality, scale } }, place)
        );
        expect([width, height]).toEqual([CROP_PX, CROP_PX]);
        expect([x >= 0, y >= 0, x + width <= sheetWidth, y + height <= sheetHeight]).toEqual([true, true, true, true]);
        if (place.x > 0)
          expect(
            [(x + CROP_PX / 2) / sheetWidth, (y + CROP_PX / 2) / sheetHeight].map((v) => Math.round(v * 100) / 100)
          ).toEqual([0.4, 0.6]);
      }
    }
    expect(
      proofPixels(cropBrief({ ...brief, size: { width_px: 50, height_px: 300 } }, { x: 0.5, y: 0.5 }))
    ).toMatchObject({ width: 50, height: CROP_PX });
  });
  it('is taken where there is more grain than in nine tenths of the picture', () => {
    const patches = probePatches(2560, 1707);
    const at = {
      longSide_px: 2560,
      secondsPerSample: 1,
      squaredGrain: patches.map((_, i) => (i * 7) % patches.length)
    };
    const probe: Probe = { setupSeconds: 1, at: [{ ...at, longSide_px: 512 }, at], memoryBytes: 1, layers: 0 };
    const place = tellingPlace(probe, 2560 / 1707);
    const found = patches.findIndex(
      (p) =>
        Math.abs((p.x + p.width / 2) / 2560 - place.x) < 1e-9 && Math.abs((p.y + p.height / 2) / 1707 - place.y) < 1e-9
    );
    const less = at.squaredGrain.filter((g) => g < at.squaredGrain[found]!).length / patches.length;
    expect(Math.abs(less - 0.9)).toBeLessThan(0.03);
  });
});
