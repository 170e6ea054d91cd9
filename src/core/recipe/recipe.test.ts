import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad } from '../../../tests/support/scenes';
import { BRIEF_DEFAULTS, type Brief, GROUND_DEFAULTS, SURROUNDINGS_DEFAULTS } from '../brief/brief';
import { exposed, exposureBy, exposureRule } from '../brief/exposure';
import { makeNeutralLight } from './light';
import { packedModel, packInput } from './model';
import { renderRecipe } from './recipe';
import { resolveViewpoint } from './viewpoint';

const scene = makeScene([quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(0.5))]);
const none = {
  openReducer: () => Promise.reject(new Error('nothing is to be simplified')),
  readPiece: () => Promise.reject(new Error('nothing is placed')),
  readPicture: () => Promise.reject(new Error('no pictures lie on it'))
};

async function recipeOf(part: Partial<Brief>, width = 300, height = 200) {
  const brief = { ...BRIEF_DEFAULTS, ...part };
  const of = packInput(resolveViewpoint(scene, brief), brief);
  const model = await packedModel(scene, of, none);
  const neutral = makeNeutralLight(brief, scene, null);
  return renderRecipe({ brief, scene, model, centre_m: of.centre_m, neutral, webs: new Map(), width, height });
}

describe('a render recipe', () => {
  it('hands limits, layers and reach of the brief to the kernel, and leaves the exposure to its rule', async () => {
    const { settings, layers, dark } = await recipeOf({
      quality: { ...BRIEF_DEFAULTS.quality, bounces: 7, specular_bounces: 3, layers: true, aovs: true, firefly: 4 }
    });
    expect(settings).toMatchObject({ width: 300, height: 200, bounces: 7, firefly: 0, indoors: false });
    expect(settings.limits).toMatchObject({ specular_bounces: 3, diffuse_bounces: null, transparent_bounces: 256 });
    expect(settings.layers).toBe(layers.groups.length);
    expect(layers.aovs?.materials.length).toBeGreaterThan(0);
    expect(settings.aovs!.ambient_occlusion_m).toBeCloseTo(0.1 * Math.hypot(2, 2), 6);
    expect(dark).toBe(false);
  });
  it('is dark where no light reaches, and knows its ground and its viewpoint in the pack’s coordinates', async () => {
    const dark = await recipeOf({ surroundings: { ...SURROUNDINGS_DEFAULTS.uniform, radiance: 0 } });
    expect(dark.dark).toBe(true);
    const far: Partial<Brief> = {
      viewpoint: {
        ...(BRIEF_DEFAULTS.viewpoint as object),
        position_m: [800, 2, 0],
        target_m: [0, 0, 0]
      } as Brief['viewpoint'],
      ground: { ...GROUND_DEFAULTS, height_m: 0.5 }
    };
    const { settings } = await recipeOf(far);
    expect(Math.abs(settings.camera.eye[0])).toBeLessThan(800);
    expect(settings.ground!.height_m).toBeCloseTo(0.5 + settings.camera.eye[1] - 2, 6);
  });
  it('refuses a viewpoint that looks nowhere, by its name', async () => {
    const nowhere = { ...(BRIEF_DEFAULTS.viewpoint as object), target_m: [0, 1.6, 4] } as Brief['viewpoint'];
    await expect(recipeOf({ viewpoint: nowhere })).rejects.toMatchObject({ field: 'viewpoint' });
  });
});

describe('the exposure of a brief', () => {
  const studio: Brief = { ...BRIEF_DEFAULTS, surroundings: SURROUNDINGS_DEFAULTS.studio, exposure: { metered: true } };
  it('is stated, and then no meter is asked', async () => {
    const asked = () => Promise.reject(new Error('a stated exposure needs no meter'));
    expect(await exposureBy(exposureRule({ ...studio, exposure: { ev100: 9 } }), asked)).toBe(9);
  });
  it('sets white by ISO 12232 and the firefly limit in multiples of it', () => {
    const rule = exposureRule({ ...studio, quality: { ...studio.quality, firefly: 4 } });
    expect(exposed(rule, 3)).toEqual({ white: 9.6, firefly: 38.4 });
    expect(exposed(exposureRule(studio), 3).firefly).toBe(0);
  });
});
