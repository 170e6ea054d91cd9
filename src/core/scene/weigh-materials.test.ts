import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad } from '../../../tests/support/scenes';
import { IDENTITY } from '../math/affine';
import type { Scene } from './scene';
import { weighMaterials } from './weigh-materials';

describe('the weight of materials', () => {
  it('counts triangles as drawn, and pictures once a name', () => {
    const use = { texture: 0, uvSet: 0, wrapS: 'repeat', wrapT: 'repeat', transform: [1, 0, 0, 0, 1, 0] } as const;
    const oak = {
      ...matte(0.4),
      name: 'oak',
      baseTexture: { ...use, transform: [...use.transform] },
      normalTexture: null
    };
    const square = (x: number, material: object) => quad([x, 0, 0], [x + 1, 0, 0], [x + 1, 1, 0], [x, 1, 0], material);
    const made = makeScene([
      square(0, oak),
      square(2, { ...oak, roughness: 0.2 }),
      square(4, { ...matte(0.2), name: 'slate' })
    ]);
    const scene: Scene = {
      ...made,
      textures: [{ name: 'grain', width: 1000, height: 500, pixels: new Uint8Array(), encoded: true }],
      objects: [{ ...made.geometry, triangleMaterials: Uint32Array.of(2, 2, 2) }],
      instances: [1, 2].map((n) => ({ object: 0, matrix: IDENTITY, name: `stone ${n}` }))
    };
    expect(weighMaterials(scene)).toEqual([
      { name: 'slate', triangles: 2 + 2 * 3, texture_mb: 0 },
      // a million half pixels of four bytes, and a third of that again
      { name: 'oak', triangles: 4, texture_mb: 2.7 }
    ]);
  });
});
