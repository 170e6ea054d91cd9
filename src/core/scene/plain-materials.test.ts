import { describe, expect, it } from 'vitest';
import { matte, sphere, makeScene } from '../../../tests/support/scenes';
import { inPlain, isPlain } from './plain-materials';
import { LAYERS_DEFAULTS } from './scene';

describe('a plain material', () => {
  const scene = makeScene([
    sphere(
      [0, 0, 0],
      1,
      {
        name: 'copper',
        baseColor: [0.9, 0.5, 0.3, 1],
        metallic: 1,
        roughness: 0.2,
        emissive: [2, 2, 2],
        alphaMode: 'mask',
        layers: { ...LAYERS_DEFAULTS, coat: 1 }
      },
      false,
      4,
      8
    ),
    sphere([3, 0, 0], 1, { name: 'wall', ...matte(0.5) }, false, 4, 8)
  ]);
  it('keeps its colour, holes and glow, and is matte', () => {
    const [copper, wall] = inPlain(scene, ['copper']).materials;
    expect(copper).toMatchObject({
      name: 'copper',
      baseColor: [0.9, 0.5, 0.3, 1],
      metallic: 0,
      roughness: 1,
      specular: 0,
      emissive: [2, 2, 2],
      alphaMode: 'mask',
      layers: null
    });
    expect(wall).toBe(scene.materials[1]);
    expect([isPlain(scene.materials[0]!), isPlain(copper!), isPlain(wall!)]).toEqual([false, true, true]);
  });
  it('of a solid texture has its mean colour', () => {
    const solid = {
      kind: 'stone',
      colors: [
        [0.2, 0.2, 0.2],
        [0.4, 0.4, 0.4],
        [0.6, 0.6, 0.6]
      ],
      scale: 1
    } as never;
    const [m] = inPlain({ materials: [{ ...scene.materials[1]!, baseColor: [1, 1, 1, 1], solid_texture: solid }] }, [
      'wall'
    ]).materials;
    expect(m!.solid_texture).toBeNull();
    expect(m!.baseColor[0]).toBeGreaterThan(0.2);
    expect(m!.baseColor[0]).toBeLessThan(0.6);
  });
  it('is none where none is named', () => expect(inPlain(scene, [])).toBe(scene));
});
