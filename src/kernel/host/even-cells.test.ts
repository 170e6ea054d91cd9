/**
 * Light that is scattered widely sees the means of the importance grid's even cells: the same light as of the image
 * itself.
 */
import { describe, expect, it } from 'vitest';
import { makeScene, matte, type Piece, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { buildImportanceGrid } from '../../core/lights/captured/importance';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';

const WIDTH = 512;
const HEIGHT = 256;
/** Brighter towards one side and the zenith, dark ground below the horizon, and a small bright thing. */
const pixels = new Float32Array(WIDTH * HEIGHT * 3);
for (let y = 0; y < HEIGHT; y++) {
  for (let x = 0; x < WIDTH; x++) {
    const height = Math.PI / 2 - ((y + 0.5) / HEIGHT) * Math.PI;
    const sky = 800 * (1.6 + Math.cos((2 * Math.PI * x) / WIDTH)) * (0.4 + Math.max(0, Math.sin(height)));
    const value = x > 300 && x < 304 && y > 70 && y < 74 ? 90_000 : height > 0 ? sky : 60;
    pixels.set([value * 0.8, value, value * 1.2], (y * WIDTH + x) * 3);
  }
}
const grid = buildImportanceGrid(pixels, WIDTH, HEIGHT, 128);
const lit = (byCells: boolean): SurroundingsLight => ({
  even: null,
  sun: null,
  image: {
    pixels,
    width: WIDTH,
    height: HEIGHT,
    scale: 0.5,
    rotation: 0.7,
    grid: byCells ? grid : { ...grid, mean: grid.mean.map(() => -1) }
  }
});
const plate = (material: Piece['material']) =>
  makeScene([
    quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], material),
    quad([-1, 0, -1], [1, 0, -1], [1, 2, -1], [-1, 2, -1], { ...material, twoSided: true })
  ]);
const seen = (material: Piece['material'], byCells: boolean, samples: number) =>
  renderScene(plate(material), viewFrom([-3, 2.5, 5], [0, 0.5, 0], { focal_length_mm: 30 }), {
    width: 32,
    height: 24,
    samples,
    light: lit(byCells)
  });

describe('even cells of the surroundings', () => {
  it('are most of a sky, but not its horizon nor what stands out', () => {
    const missing = grid.mean.filter((_, i) => i % 3 === 0 && grid.mean[i]! < 0).length;
    expect(missing).toBeGreaterThanOrEqual(2 * 128 + 1);
    expect(missing).toBeLessThan(3 * 128);
  });
  const materials: [string, Piece['material']][] = [
    ['matte', matte(0.6)],
    ['half gloss', { baseColor: [0.4, 0.4, 0.4, 1], roughness: 0.5 }],
    ['rough metal', { metallic: 1, roughness: 0.7, baseColor: [0.8, 0.8, 0.8, 1] }]
  ];
  it.each(materials)('light what is %s as the image does, to 0.1 %%', (_name, material) => {
    const [cells, image] = [seen(material, true, 1024), seen(material, false, 1024)];
    for (const k of [0, 1, 2] as const) expect(cells.mean[k] / image.mean[k]).toBeCloseTo(1, 3);
    // and pixel by pixel: the same paths see nearly the same light
    const off = cells.pixels.map((p, i) => Math.abs(p[1]! / image.pixels[i]![1]! - 1));
    expect(Math.max(...off)).toBeLessThan(0.01);
  });
  it('are not seen in what is smooth: the same bits but where a light sample misses its lobe by far', () => {
    const mirror: Piece['material'] = { metallic: 1, roughness: 0.1, baseColor: [1, 1, 1, 1] };
    const [cells, image] = [seen(mirror, true, 1), seen(mirror, false, 1)];
    for (const k of [0, 1, 2] as const) expect(cells.mean[k] / image.mean[k]).toBeCloseTo(1, 3);
    const same = cells.pixels.filter((p, i) => p.every((v, k) => v === image.pixels[i]![k]));
    expect(same.length / cells.pixels.length).toBeGreaterThan(0.25);
  });
});
