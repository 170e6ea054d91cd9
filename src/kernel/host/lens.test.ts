import { describe, expect, it } from 'vitest';
import { dark, glowing, makeScene, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { circleOfConfusion } from '../../core/camera/lens';

const PX = 64;
const FOCAL_MM = 200;
const SENSOR_MM = 24;
const F_NUMBER = 2;
const FOCUS_M = 1;
/** Side of the glowing square where the focus is, as seen from the lens, m. */
const DOT_M = 0.005;

/**
 * The picture of a small square at a distance: where its middle is, its second moment about that and its light in
 * rings, all in px.
 */
function pictureAt(distance: number) {
  const h = (DOT_M * distance) / FOCUS_M / 2;
  const scene = makeScene([
    quad([-h, -h, -distance], [h, -h, -distance], [h, h, -distance], [-h, h, -distance], glowing(1))
  ]);
  const view = viewFrom([0, 0, 0], [0, 0, -1], {
    focal_length_mm: FOCAL_MM,
    sensor_height_mm: SENSOR_MM,
    f_number: F_NUMBER,
    focus_m: FOCUS_M
  });
  const { pixels } = renderScene(scene, view, { width: PX, height: PX, samples: 512, bounces: 0, light: dark });
  const at = (i: number) => [(i % PX) + 0.5, Math.floor(i / PX) + 0.5] as const;
  const total = pixels.reduce((sum, p) => sum + p[0], 0);
  const middle = [0, 1].map((k) => pixels.reduce((sum, p, i) => sum + p[0] * at(i)[k]!, 0) / total);
  const radius = (i: number) => Math.hypot(at(i)[0] - middle[0]!, at(i)[1] - middle[1]!);
  const moment = pixels.reduce((sum, p, i) => sum + p[0] * radius(i) ** 2, 0) / total;
  const meanWithin = (from: number, to: number) => {
    const ring = pixels.filter((_, i) => radius(i) >= from && radius(i) < to);
    return ring.reduce((sum, p) => sum + p[0], 0) / ring.length;
  };
  return { middle, moment, meanWithin };
}

describe('thin lens: the image of a point that is out of focus is an even disc (any optics text)', () => {
  const aperture = FOCAL_MM / 1000 / F_NUMBER;
  const pxPerMetreInFocus = PX / ((SENSOR_MM / FOCAL_MM) * FOCUS_M);
  for (const distance of [0.7, 1.5, 2])
    it(`at ${distance} m with the focus at ${FOCUS_M} m`, () => {
      // on the sensor A f |s - s0| / (s (s0 - f)); a picture has the scale of its focal length, a camera that of the
      // lens drawn out to f s0 / (s0 - f): so taken back to what stands in focus
      const focal = FOCAL_MM / 1000;
      const inFocus = (circleOfConfusion(aperture, focal, FOCUS_M, distance) * (FOCUS_M - focal)) / focal;
      const wanted = inFocus * pxPerMetreInFocus;
      const { middle, moment, meanWithin } = pictureAt(distance);
      for (const m of middle) expect(Math.abs(m - PX / 2)).toBeLessThan(0.5);
      // second moments: of a disc d^2 / 8, of the square itself a^2 / 6
      const square = DOT_M * pxPerMetreInFocus;
      const diameter = Math.sqrt(8 * (moment - square ** 2 / 6));
      expect(Math.abs(diameter / wanted - 1), `${diameter} px for ${wanted}`).toBeLessThan(0.02);
      expect(Math.abs(meanWithin(0, wanted / 4) / meanWithin(wanted / 4, wanted / 2 - square) - 1)).toBeLessThan(0.1);
      expect(meanWithin(wanted / 2 + square + 2, PX)).toBe(0);
    });
  it('in focus it is sharp', () => {
    const square = DOT_M * pxPerMetreInFocus;
    expect(pictureAt(FOCUS_M).moment).toBeLessThan(square ** 2 / 6 + 0.8);
  });
});
