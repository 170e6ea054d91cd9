import { describe, expect, it } from 'vitest';
import { CLAY_DEFAULTS } from '../brief/brief';
import { inClay } from './clay';
import { LAYERS_DEFAULTS, MATERIAL_DEFAULTS, type SceneMaterial, type TextureUse } from './scene';

const named = (name: string, part: Partial<SceneMaterial> = {}): SceneMaterial => ({
  ...MATERIAL_DEFAULTS,
  name,
  ...part
});
const picture = { texture: 3 } as TextureUse;
const model = {
  materials: [
    named('Oak', { baseColor: [0.4, 0.3, 0.2, 1], roughness: 0.4, baseTexture: picture, layers: LAYERS_DEFAULTS }),
    named('Pane', { transmission: 1, roughness: 0 }),
    named('Leaf', { alphaMode: 'mask', alphaCutoff: 0.3, baseTexture: picture }),
    named('Bulb', { emissive: [900, 800, 700] })
  ]
};

describe('a model in clay', () => {
  it('is grey and matte all over but for glass; holes and glow stay', () => {
    const [oak, pane, leaf, bulb] = inClay(model, { ...CLAY_DEFAULTS, grey: 0.3 }).materials;
    expect(oak).toMatchObject({
      name: 'Oak',
      baseColor: [0.3, 0.3, 0.3, 1],
      roughness: 1,
      specular: 0,
      baseTexture: null,
      layers: null,
      plain: true
    });
    expect(pane).toBe(model.materials[1]);
    expect(leaf).toMatchObject({
      alphaMode: 'mask',
      alphaCutoff: 0.3,
      baseTexture: picture,
      baseColor: [0.3, 0.3, 0.3, 1],
      plain: true
    });
    expect(bulb).toMatchObject({ emissive: [900, 800, 700], baseColor: [0.3, 0.3, 0.3, 1] });
  });
  it('covers glass too when that is wanted', () =>
    expect(inClay(model, { ...CLAY_DEFAULTS, glass: false }).materials[1]).toMatchObject({
      name: 'Pane',
      transmission: 0,
      roughness: 1
    }));
  it('takes one of the model’s own materials instead', () => {
    const [oak, , leaf, bulb] = inClay(model, { ...CLAY_DEFAULTS, material: 'Oak' }).materials;
    expect(oak).toMatchObject({ baseTexture: picture, roughness: 0.4, layers: LAYERS_DEFAULTS });
    expect(leaf).toMatchObject({ alphaMode: 'mask', roughness: 0.4, baseColor: [0.4, 0.3, 0.2, 1] });
    expect(bulb).toMatchObject({ name: 'Bulb', baseTexture: picture, emissive: [900, 800, 700] });
  });
  it('refuses a material that is not there', () =>
    expect(() => inClay(model, { ...CLAY_DEFAULTS, material: 'Elm' })).toThrow(/"Elm" is not in the model/));
});
