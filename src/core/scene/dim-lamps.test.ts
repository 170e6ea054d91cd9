import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS } from '../brief/brief';
import { luminance } from '../color/spaces';
import { correlatedKelvin } from '../color/spectrum';
import { rec709ToXyz } from '../color/spaces';
import type { Vec3 } from '../math/vec3';
import { dimLamps, type LampSetting, settingOf } from './dim-lamps';
import { lampGroup, lampName } from './lamp-groups';
import { MATERIAL_DEFAULTS, type Scene, type SceneLight } from './scene';

const AS_IT_IS = BRIEF_DEFAULTS.lamps;
const globe = { ...MATERIAL_DEFAULTS, name: 'opal', lamp: 'Shelf lamps 4', emissive: [900, 600, 330] as const };
const spot: SceneLight = {
  kind: 'spot',
  name: 'Picture spot 2',
  position: [0, 2, 0],
  direction: [0, -1, 0],
  intensity: [240, 200, 150],
  innerAngle: 0.2,
  outerAngle: 0.5
};
const scene: Pick<Scene, 'materials' | 'lights'> = { materials: [MATERIAL_DEFAULTS, globe], lights: [spot] };
const setting = (more: Partial<LampSetting>): LampSetting => ({
  group: 'Shelf lamps',
  on: true,
  dim_ev: 0,
  kelvin: null,
  photometry: null,
  ...more
});
const glow = (choice: Parameters<typeof dimLamps>[1]) => dimLamps(scene, choice).materials[1]!.emissive;
const shine = (choice: Parameters<typeof dimLamps>[1]) =>
  (dimLamps(scene, choice).lights[0] as { intensity: readonly number[] }).intensity;

describe('lamps of a model, by group', () => {
  it('are one group by their names, numbered or not; glowing surfaces by their part unless that says nothing', () => {
    expect(['Shelf lamp 3', 'Shelf lamp.004', 'Shelf lamp'].map(lampGroup)).toEqual([
      'Shelf lamp',
      'Shelf lamp',
      'Shelf lamp'
    ]);
    expect(lampGroup('7')).toBe('lamps');
    expect(lampName('Corridor light.002', 'emitter')).toBe('Corridor light.002');
    expect(lampName('Mesh.012', 'Opal')).toBe('Opal');
  });
  it('are as the model has them when nothing is said', () => {
    expect(dimLamps(scene, AS_IT_IS)).toBe(scene);
    expect(settingOf({ ...AS_IT_IS, groups: [setting({ dim_ev: -1 })] }, 'shelf LAMPS').dim_ev).toBe(-1);
  });
  it('are dimmed by stops and switched off, the others untouched', () => {
    expect(glow({ ...AS_IT_IS, groups: [setting({ dim_ev: -2 })] })[0]).toBeCloseTo(225, 9);
    expect(glow({ ...AS_IT_IS, groups: [setting({ on: false })] })).toEqual([0, 0, 0]);
    expect(shine({ ...AS_IT_IS, groups: [setting({ on: false })] })).toEqual([240, 200, 150]);
  });
  it('take another colour at the same luminance', () => {
    const cool = glow({ ...AS_IT_IS, groups: [setting({ kelvin: 6500 })] });
    expect(luminance(cool)).toBeCloseTo(luminance(globe.emissive), 6);
    expect(Math.abs(correlatedKelvin(rec709ToXyz(cool)) - 6500)).toBeLessThan(60);
  });
  it('can be seen one group alone', () => {
    expect(glow({ ...AS_IT_IS, only: 'Picture spot' })).toEqual([0, 0, 0]);
    expect(shine({ ...AS_IT_IS, only: 'Picture spot' })).toEqual([240, 200, 150]);
    expect(shine({ ...AS_IT_IS, only: 'surroundings' })).toEqual([0, 0, 0]);
  });
  it('shine as a photometric file says, in candela and in their own colour', () => {
    const web = { planes: 1, angles: 2, candela: Float32Array.of(500, 0) };
    const [light] = dimLamps(
      scene,
      { ...AS_IT_IS, groups: [setting({ group: 'Picture spot', photometry: 'halm', dim_ev: 1 })] },
      new Map([['halm', web]])
    ).lights;
    if (light!.kind !== 'web') throw new Error(light!.kind);
    expect(luminance(light!.tint)).toBeCloseTo(2, 9);
    expect(light!.tint[0] / light!.tint[2]).toBeCloseTo(240 / 150, 9);
    expect(() =>
      dimLamps(scene, { ...AS_IT_IS, groups: [setting({ group: 'Picture spot', photometry: 'gone' })] })
    ).toThrow(/not here/);
  });
  it('belong to groups of one’s own where that is said, and are dimmed with them', () => {
    const choice = {
      ...AS_IT_IS,
      regrouped: [
        { lamp: 'picture spot 2', group: 'Wall' },
        { lamp: 'Shelf lamps 4', group: 'Wall' }
      ],
      groups: [setting({ group: 'Wall', dim_ev: -1 })]
    };
    const made = dimLamps(scene, choice);
    expect(made.lights[0]!.name).toBe('Wall');
    expect(made.materials[1]).toMatchObject({ lamp: 'Wall', emissive: [450, 300, 165] });
    expect(shine(choice)).toEqual([120, 100, 75]);
  });
  it('are joined by those that the brief adds, which follow their group as well', () => {
    const added = [
      {
        name: 'Own spot 2',
        form: 'point' as const,
        position_m: [0, 1, 0] as [number, number, number],
        direction: [0, -1, 0] as [number, number, number],
        turn_deg: 0,
        width_m: 1,
        height_m: 1,
        beam_deg: 30,
        lumen: 400 * Math.PI,
        kelvin: 4000,
        tint: 0,
        photometry: null
      }
    ];
    const bright = (choice: Partial<typeof AS_IT_IS>) =>
      luminance((dimLamps(scene, { ...AS_IT_IS, added, ...choice }).lights[1] as { intensity: Vec3 }).intensity);
    expect(bright({})).toBeCloseTo(100, 6);
    expect(bright({ groups: [setting({ group: 'Own spot', dim_ev: -1 })] })).toBeCloseTo(50, 6);
    expect(bright({ only: 'Picture spot' })).toBe(0);
  });
  it('on hidden layers are off until their group is decided on', () => {
    const hidden = { ...scene, lights: [{ ...spot, hidden: true as const }] };
    const bright = (choice: Partial<typeof AS_IT_IS>) =>
      (dimLamps(hidden, { ...AS_IT_IS, ...choice }).lights[0] as { intensity: readonly number[] }).intensity[0];
    expect(bright({})).toBe(0);
    expect(bright({ groups: [setting({ group: 'Picture spot' })] })).toBe(240);
    expect(settingOf(AS_IT_IS, 'Picture spot', true).on).toBe(false);
  });
});
