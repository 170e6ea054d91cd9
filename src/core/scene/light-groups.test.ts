import { describe, expect, it } from 'vitest';
import { groupLights, MAX_GROUPS } from './light-groups';
import { MATERIAL_DEFAULTS, type SceneLight } from './scene';

const lamp = (name: string): SceneLight => ({ kind: 'point', name, position: [0, 0, 0], intensity: [1, 1, 1] });
const glow = (name: string) => ({ ...MATERIAL_DEFAULTS, name, emissive: [1, 1, 1] as const });

describe('light groups', () => {
  it('puts lamps of one name together, whatever their number, and glowing materials by their name', () => {
    const groups = groupLights({
      lights: [lamp('Spot 1'), lamp('Spot.002'), lamp('Desk')],
      materials: [MATERIAL_DEFAULTS, glow('lamp globe'), glow('Spot')]
    });
    expect(groups.names).toEqual(['surroundings', 'sun', 'lamp globe', 'Spot', 'Desk']);
    expect(groups.ofLight).toEqual([3, 3, 4]);
    expect(groups.ofMaterial).toEqual([0, 2, 3]);
  });
  it('gives names that layers can have: no dots, none empty, none twice', () => {
    const { names } = groupLights({ lights: [lamp('a.b/c'), lamp(''), lamp('sun')], materials: [] });
    expect(names).toEqual(['surroundings', 'sun', 'a-b-c', 'lamps', 'sun lamp']);
  });
  it('lets what is beyond the room for layers share the last', () => {
    const groups = groupLights({
      lights: Array.from({ length: 40 }, (_, i) =>
        lamp(`lamp ${String.fromCharCode(97 + (i % 26))}${i > 25 ? 'x' : ''}`)
      ),
      materials: []
    });
    expect(groups.names).toHaveLength(MAX_GROUPS);
    expect(groups.names.at(-1)).toBe('other lamps');
    expect(Math.max(...groups.ofLight)).toBe(MAX_GROUPS - 1);
  });
});
