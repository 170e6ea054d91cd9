/** Masks, depth, ambientOcclusion and the light by its way, against what is known of simple scenes. */
import { describe, expect, it } from 'vitest';
import {
  dark,
  even,
  glowing,
  makeScene,
  matte,
  quad,
  renderScene,
  sphere,
  viewFrom
} from '../../../tests/support/scenes';
import { AOV_LAYERS, AOV_MATERIALS, AOV_OBJECTS, CHANNELS, ID_PLACES, TILE_PX } from '../../core/film/film';
import { affine, IDENTITY } from '../../core/math/affine';
import { partNames, type Scene } from '../../core/scene/scene';
import * as L from '../assembly/layout';

const samples = 64;
const width = 16;
const floor = quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(0.5));
const left = quad([-5, 1, 5], [0, 1, 5], [0, 1, -5], [-5, 1, -5], matte(0.3));
const named = (scene: Scene): Scene => ({
  ...scene,
  parts: [
    { name: 'floor', first: 0, matrix: IDENTITY },
    { name: 'left', first: 2, matrix: IDENTITY }
  ]
});
const above = viewFrom([0, 4, 0], [0, 0, 0], { projection: 'parallel', height_m: 2 });

/** Pairs of an id and the share of the samples that found it. */
const idsAt = (aovs: Float32Array, from: number) =>
  Array.from({ length: 4 }, (_, i) => [aovs[from + i * 2]!, aovs[from + i * 2 + 1]! / samples]).filter(([id]) => id);

describe('aovs', () => {
  it('lie where film and kernel both say', () => {
    expect([L.AOV_LAYERS, L.AOV_OBJECTS, L.AOV_MATERIALS, L.ID_PLACES, L.FILM_CHANNELS, L.TILE]).toEqual([
      AOV_LAYERS,
      AOV_OBJECTS,
      AOV_MATERIALS,
      ID_PLACES,
      CHANNELS,
      TILE_PX
    ]);
  });

  it('number parts as their names stand, when all of a model is placed copies', () => {
    const thing = makeScene([quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(0.5))]);
    const scene: Scene = {
      ...makeScene([]),
      materials: thing.materials,
      objects: [thing.geometry],
      instances: [0, 1].map((i) => ({
        object: 0,
        name: `copy ${i}`,
        matrix: affine([1, 0, 0], [0, 1, 0], [0, 0, 1], [i * 3, 0, 0])
      }))
    };
    for (const i of [0, 1]) {
      // at the second the scene is moved towards the camera before it is packed, at the first it is not
      const { aovsOf } = renderScene(
        scene,
        viewFrom([i * 3, 20 * i + 2, 0], [i * 3, 0, 0], { projection: 'parallel', height_m: 0.5 }),
        { width: 2, height: 2, samples, bounces: 1, aovs: true }
      );
      expect(partNames(scene)[idsAt(aovsOf(0), AOV_OBJECTS)[0]![0]! - 1]).toBe(`copy ${i}`);
    }
  });

  it('say which part and material each pixel shows, and with what share at an edge', () => {
    const { aovsOf } = renderScene(named(makeScene([floor, left])), above, {
      width,
      height: width,
      samples,
      bounces: 1,
      aovs: true
    });
    const row = 8 * width;
    expect(idsAt(aovsOf(row + 1), AOV_OBJECTS)).toEqual([[2, 1]]);
    expect(idsAt(aovsOf(row + 14), AOV_OBJECTS)).toEqual([[1, 1]]);
    expect(idsAt(aovsOf(row + 14), AOV_MATERIALS)).toEqual([[1, 1]]);
    // the edge runs between pixels 7 and 8; the filter reaches over it
    const edge = new Map(idsAt(aovsOf(row + 8), AOV_OBJECTS) as [number, number][]);
    expect(edge.size).toBe(2);
    expect(edge.get(1)! + edge.get(2)!).toBeCloseTo(1, 6);
    expect(edge.get(1)!).toBeGreaterThan(edge.get(2)!);
  });

  it('say how deep the first surface lies', () => {
    const { aovsOf } = renderScene(named(makeScene([floor, left])), above, {
      width,
      height: width,
      samples,
      bounces: 1,
      aovs: true
    });
    expect(aovsOf(8 * width + 1)[10]! / aovsOf(8 * width + 1)[11]!).toBeCloseTo(3, 3);
    expect(aovsOf(8 * width + 14)[10]! / aovsOf(8 * width + 14)[11]!).toBeCloseTo(4, 3);
    // above and beyond the floor nothing is met
    const sky = renderScene(makeScene([floor]), viewFrom([0, 1, 0], [0, 2, -1]), {
      width: 4,
      height: 4,
      samples,
      bounces: 1,
      aovs: true
    });
    expect(sky.aovsOf(0)[11]).toBe(0);
  });

  it('say how open a place is: half beside a wall that rises far above it', () => {
    // a wall along z at x = 0 takes half of the cosine hemisphere of a place at its foot
    const wall = quad([0, 0, 5], [0, 0, -5], [0, 40, -5], [0, 40, 5], matte(0.5));
    const { aovsOf } = renderScene(
      makeScene([floor, wall]),
      viewFrom([0.02, 4, 0], [0.02, 0, 0], { projection: 'parallel', height_m: 0.02 }),
      { width: 8, height: 8, samples: 256, bounces: 0, aovs: true }
    );
    let open = 0;
    for (let i = 0; i < 64; i++) open += aovsOf(i)[9]! / 256 / 64;
    expect(Math.abs(open - 0.5)).toBeLessThan(0.02);
  });

  it('part the light into direct and what comes after, gloss and glass', () => {
    const box = [
      floor,
      quad([-1, 0, -1], [1, 0, -1], [1, 2, -1], [-1, 2, -1], matte(0.8)),
      quad([-0.3, 2, 0.3], [-0.3, 2, -0.3], [0.3, 2, -0.3], [0.3, 2, 0.3], glowing(10))
    ];
    const view = viewFrom([0, 1, 3], [0, 0.4, 0]);
    const all = renderScene(makeScene(box), view, { samples: 256, bounces: 6, light: dark, aovs: true });
    const one = renderScene(makeScene(box), view, { samples: 256, bounces: 1, light: dark });
    const direct = Array.from({ length: 256 }, (_, i) => all.aovsOf(i)[1]! / 256 / 256).reduce((a, b) => a + b);
    expect(Math.abs(direct / one.mean[1] - 1)).toBeLessThan(0.005);
    expect(all.mean[1]).toBeGreaterThan(1.05 * direct);

    const mirror = renderScene(
      makeScene([sphere([0, 1, 0], 0.9, { metallic: 1, roughness: 0.3 })]),
      viewFrom([0, 1, 3], [0, 1, 0], { projection: 'parallel', height_m: 0.8 }),
      { samples: 64, light: even(2), aovs: true }
    );
    for (const i of [0, 100, 255]) {
      expect(mirror.aovsOf(i)[4]! / 64).toBeCloseTo(mirror.pixels[i]![1], 4); // all by way of gloss
      expect(mirror.aovsOf(i)[7]).toBe(0);
    }
    const glass = renderScene(
      makeScene([sphere([0, 1, 0], 0.9, { transmission: 1, solid: true, roughness: 0.2, ior: 1.5 })]),
      viewFrom([0, 1, 3], [0, 1, 0], { projection: 'parallel', height_m: 0.8 }),
      { samples: 64, light: even(2), aovs: true }
    );
    // mirrored and let through are all that glass does; at its middle it mirrors 4 % (Fresnel)
    expect((glass.aovsOf(100)[4]! + glass.aovsOf(100)[7]!) / 64).toBeCloseTo(glass.pixels[100]![1], 3);
    const middle = [119, 120, 135, 136].map((i) => glass.aovsOf(i)[4]! / 64 / 2).reduce((a, b) => a + b) / 4;
    expect(Math.abs(middle - 0.04)).toBeLessThan(0.012);
  });

  it('change nothing of the picture', () => {
    const scene = named(makeScene([floor, left]));
    const plain = renderScene(scene, above, { width: 8, height: 8, samples: 16 });
    const aided = renderScene(scene, above, { width: 8, height: 8, samples: 16, aovs: true });
    expect(aided.pixels).toEqual(plain.pixels);
    // rays that look around pass panes and veils, whose materials must not be taken for the surface's own
    const veil = quad([-5, 0.5, 5], [5, 0.5, 5], [5, 0.5, -5], [-5, 0.5, -5], {
      baseColor: [0.9, 0.2, 0.1, 0.5],
      alphaMode: 'blend',
      roughness: 0.05,
      metallic: 1
    });
    const pane = quad([-5, 0.8, 5], [5, 0.8, 5], [5, 0.8, -5], [-5, 0.8, -5], {
      transmission: 1,
      roughness: 0,
      baseColor: [0.3, 0.9, 0.5, 1]
    });
    const [bare, told] = [false, true].map((aovs) =>
      renderScene(makeScene([floor, veil, pane]), above, { width: 8, height: 8, samples: 16, aovs })
    );
    expect(told!.pixels).toEqual(bare!.pixels);
  });
});
