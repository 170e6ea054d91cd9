import { describe, expect, it } from 'vitest';
import { luminance } from '../color/spaces';
import { correlatedKelvin } from '../color/spectrum';
import { rec709ToXyz } from '../color/spaces';
import { dimLamps, settingOf } from './dim-lamps';
import { glowGroup, lampGroup } from './lamp-groups';
import { MATERIAL_DEFAULTS, type SceneLight } from './scene';

const globe = { ...MATERIAL_DEFAULTS, name: 'opal', lampGroup: 'Shelf lamps', emissive: [900, 600, 330] as const };
const spot: SceneLight = { kind: 'spot', name: 'Picture spot 2', position: [0, 2, 0], direction: [0, -1, 0], intensity: [240, 200, 150], innerAngle: 0.2, outerAngle: 0.5 };
const scene = { materials: [MATERIAL_DEFAULTS, globe], lights: [spot] };
const setting = (more: object) => ({ group: 'Shelf lamps', on: true, dim_ev: 0, kelvin: null, ...more });
const glow = (choice: Parameters<typeof dimLamps>[1]) => dimLamps(scene, choice).materials[1]!.emissive;
const shine = (choice: Parameters<typeof dimLamps>[1]) => (dimLamps(scene, choice).lights[0] as { intensity: readonly number[] }).intensity;

describe('lamps of a model, by group', () => {
  it('are one group by their names, numbered or not; glowing surfaces by their part unless that says nothing', () => {
    expect(['Shelf lamp 3', 'Shelf lamp.004', 'Shelf lamp'].map(lampGroup)).toEqual(['Shelf lamp', 'Shelf lamp', 'Shelf lamp']);
    expect(lampGroup('7')).toBe('lamps');
    expect(glowGroup('Corridor light.002', 'emitter')).toBe('Corridor light');
    expect(glowGroup('Mesh.012', 'Opal')).toBe('Opal');
  });
  it('are as the model has them when nothing is said', () => {
    expect(dimLamps(scene, { groups: [], only: null })).toBe(scene);
    expect(settingOf({ groups: [setting({ dim_ev: -1 })], only: null }, 'shelf LAMPS').dim_ev).toBe(-1);
  });
  it('are dimmed by stops and switched off, the others untouched', () => {
    expect(glow({ groups: [setting({ dim_ev: -2 })], only: null })[0]).toBeCloseTo(225, 9);
    expect(glow({ groups: [setting({ on: false })], only: null })).toEqual([0, 0, 0]);
    expect(shine({ groups: [setting({ on: false })], only: null })).toEqual([240, 200, 150]);
  });
  it('take another colour at the same luminance', () => {
    const cool = glow({ groups: [setting({ kelvin: 6500 })], only: null });
    expect(luminance(cool)).toBeCloseTo(luminance(globe.emissive), 6);
    expect(Math.abs(correlatedKelvin(rec709ToXyz(cool)) - 6500)).toBeLessThan(60);
  });
  it('can be seen one group alone', () => {
    expect(glow({ groups: [], only: 'Picture spot' })).toEqual([0, 0, 0]);
    expect(shine({ groups: [], only: 'Picture spot' })).toEqual([240, 200, 150]);
    expect(shine({ groups: [], only: 'surroundings' })).toEqual([0, 0, 0]);
  });
});
