/** Where a texture goes on beyond its picture (glTF 2.0, sampler wrap modes): again, mirrored, or as its edge. */
import { describe, expect, it } from 'vitest';
import { glowing, makeScene, quad, renderScene, viewFrom } from '../../../tests/support/scenes';

const TILE_PX = 12;
// uv from -2 to 3 each way is seen, straight on: tile 2 is the picture itself
const TILES = 5;
const SIZE = TILE_PX * TILES;

function row(wrap: 'repeat' | 'mirror' | 'clamp', across: boolean): number[] {
  const use = {
    texture: 0,
    uvSet: 0 as const,
    wrapS: across ? wrap : ('clamp' as const),
    wrapT: across ? ('clamp' as const) : wrap,
    transform: [1, 0, 0, 0, 1, 0] as [number, number, number, number, number, number]
  };
  const scene = makeScene([
    quad([-1.4, 0, 1.4], [1.4, 0, 1.4], [1.4, 0, -1.4], [-1.4, 0, -1.4], { ...glowing(1), emissiveTexture: use })
  ]);
  const texels = [40, 200, 90].flatMap((v) => [v, v, v, 255]);
  scene.textures = [
    { name: 'steps', width: across ? 3 : 1, height: across ? 1 : 3, pixels: Uint8Array.from(texels), encoded: false }
  ];
  scene.geometry.uv0.set([-3, 4, 4, 4, 4, -3, -3, -3]);
  const view = viewFrom([0, 5, 0], [0, 0, 0], { up: [0, 0, -1], projection: 'parallel', height_m: 2 });
  const { pixels } = renderScene(scene, view, { width: SIZE, height: SIZE, samples: 64, bounces: 0 });
  const line = SIZE / 2;
  return Array.from({ length: SIZE }, (_, i) => pixels[across ? line * SIZE + i : i * SIZE + line]![0]);
}

describe.each([
  ['across', true],
  ['along', false]
] as const)('a texture beyond its picture, %s', (_, across) => {
  const [repeat, mirror, clamp] = (['repeat', 'mirror', 'clamp'] as const).map((wrap) => row(wrap, across)) as [
    number[],
    number[],
    number[]
  ];
  const own = (values: number[]) => values.slice(2 * TILE_PX, 3 * TILE_PX);
  const alike = (a: number[], b: number[]) => {
    for (const [i, v] of a.entries()) expect(Math.abs(v - b[i]!)).toBeLessThan(0.03);
  };

  it('is the picture within it', () => {
    // the middles of its three texels
    for (const values of [repeat, mirror, clamp]) {
      for (const [i, v] of [40, 200, 90].entries())
        expect(Math.abs((own(values)[4 * i + 1]! + own(values)[4 * i + 2]!) / 2 - v / 255)).toBeLessThan(0.08);
    }
  });
  it('comes again', () => {
    for (let tile = 0; tile < TILES; tile++) alike(repeat.slice(tile * TILE_PX, (tile + 1) * TILE_PX), own(repeat));
  });
  it('is mirrored in every second tile', () => {
    for (let tile = 0; tile < TILES; tile++)
      alike(mirror.slice(tile * TILE_PX, (tile + 1) * TILE_PX), tile % 2 === 0 ? own(mirror) : own(mirror).reverse());
  });
  it('ends with its edge', () => {
    for (const v of clamp.slice(0, 2 * TILE_PX)) expect(Math.abs(v - 40 / 255)).toBeLessThan(0.03);
    for (const v of clamp.slice(3 * TILE_PX)) expect(Math.abs(v - 90 / 255)).toBeLessThan(0.03);
  });
});
