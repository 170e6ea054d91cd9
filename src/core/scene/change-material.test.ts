import { describe, expect, it } from 'vitest';
import { changedMaterial, implausible, linearColor, type MaterialChange, NO_CHANGE } from './change-material';
import { libraryColor, libraryMaterial, MATERIAL_LIBRARY } from './material-library';
import { MATERIAL_DEFAULTS, type SceneMaterial } from './scene';

const of = (key: string): SceneMaterial => ({ ...MATERIAL_DEFAULTS, ...libraryMaterial(key)!.material });
const changed = (key: string, change: Partial<MaterialChange>) => changedMaterial(of(key), { ...NO_CHANGE, ...change });

describe('a change of a material', () => {
  it('that says nothing leaves it as it is', () => {
    for (const { key } of MATERIAL_LIBRARY) expect(changed(key, {}), key).toEqual(of(key));
  });
  it('gives a pattern another colour in the mean, and keeps its differences', () => {
    const red = changed('oak-boards-oiled', { color: '#803020' });
    for (const [k, v] of libraryColor(red).entries())
      expect(Math.abs(v / linearColor('#803020')[k]! - 1)).toBeLessThan(0.05);
    const [late, early] = red.solid_texture!.colors;
    expect(early[0]).toBeGreaterThan(1.5 * late[0]);
    expect(changed('plastic-red', { color: '#ffffff' }).baseColor).toEqual([1, 1, 1, 1]);
  });
  it('colours glass inside, and clears what was opaque into a body', () => {
    expect(changed('glass-clear', { color: '#336699' }).attenuationColor).toEqual(linearColor('#336699'));
    expect(changed('plastic-red', { clear: 0.9 })).toMatchObject({ transmission: 0.9, solid: true, twoSided: false });
    const pane = { ...MATERIAL_DEFAULTS, transmission: 1 };
    expect(changedMaterial(pane, { ...NO_CHANGE, clear: 0.5 })).toMatchObject({ transmission: 0.5, solid: false });
    expect(changed('glass-clear', { tint: '#808080', tint_cm: 2.5 }).attenuationDistance).toBe(0.025);
  });
  it('turns the brushing of what is brushed already, and brushes what is not', () => {
    const turned = changed('steel-brushed', { brushed_deg: 90 }).layers!;
    expect(turned.anisotropyRotation).toBeCloseTo(Math.PI / 2);
    expect(turned.anisotropy).toBe(of('steel-brushed').layers!.anisotropy);
    expect(changed('paint-sage', { brushed: 0.5 }).layers!.anisotropy).toBe(0.5);
  });
  it('polishes the coat of what has one, else the surface', () => {
    expect(changed('oak-lacquered', { shine: 0.9 }).layers!.coatRoughness).toBeCloseTo(0.1);
    expect(changed('oak-lacquered', { shine: 0.9 }).roughness).toBe(of('oak-lacquered').roughness);
    expect(changed('paint-sage', { shine: 0.75 }).roughness).toBe(0.25);
  });
  it('sizes a pattern with its depth, turns it, and tells parts apart also without one', () => {
    const before = of('brick-red').solid_texture!;
    const after = changed('brick-red', { pattern_cm: 200 * before.size_m, pattern_along: 'z' }).solid_texture!;
    expect(after.size_m / before.size_m).toBeCloseTo(2);
    expect(after.relief_m / before.relief_m).toBeCloseTo(2);
    expect(after.axis).toBe('z');
    expect(changed('paint-sage', { variation: 0.5 }).solid_texture).toMatchObject({ variation: 0.5, kind: 'noise' });
    expect(libraryColor(changed('paint-sage', { variation: 0.5 }))).toEqual(libraryColor(of('paint-sage')));
  });
  it('glows in its own colour, as bright as it says; nought puts a lamp out', () => {
    const lit = changed('plastic-yellow', { glow_nits: 500 });
    const [r, g, b] = lit.emissive;
    expect(0.2126 * r + 0.7152 * g + 0.0722 * b).toBeCloseTo(500, 3);
    expect(r).toBeGreaterThan(g);
    expect(
      changedMaterial({ ...MATERIAL_DEFAULTS, emissive: [9, 6, 3] }, { ...NO_CHANGE, glow_nits: 0 }).emissive
    ).toEqual([0, 0, 0]);
  });
});

describe('what no surface has', () => {
  it('is pointed out with what real ones have', () => {
    expect(implausible({ ...MATERIAL_DEFAULTS, baseColor: [1, 1, 1, 1] })[0]).toMatch(/reflects 100.%.*fresh snow/);
    expect(implausible({ ...MATERIAL_DEFAULTS, baseColor: [0, 0, 0, 1] })[0]).toMatch(/black velvet/);
    expect(implausible({ ...MATERIAL_DEFAULTS, baseColor: [0.5, 0.5, 0.5, 1], metallic: 0.5 })[0]).toMatch(
      /metal or it is not/
    );
    expect(implausible({ ...of('paint-sage'), emissive: [1e6, 1e6, 1e6] })[0]).toMatch(/1,000,000 cd/);
  });
  it('is in no material of the library but metals under oxide or dye', () => {
    const told = MATERIAL_LIBRARY.filter(({ material }) => implausible(material).length > 0).map((m) => m.key);
    expect(told.sort()).toEqual(['aluminium-anodised-dark', 'bronze-dark', 'steel-blackened']);
  });
});

describe('materials against what was measured', () => {
  // Reflectances of building materials, from memory of handbook tables (CIBSE LG11; IES Lighting Handbook): within these.
  it.each([
    ['plaster-white', 0.7, 0.88],
    ['concrete-cast', 0.2, 0.45],
    ['brick-red', 0.1, 0.3],
    ['paint-white', 0.7, 0.88],
    ['oak-raw', 0.2, 0.45],
    ['walnut-raw', 0.06, 0.2],
    ['lawn', 0.04, 0.2],
    ['asphalt', 0.04, 0.12]
  ] as const)('%s reflects between %s and %s', (key, least, most) => {
    const [r, g, b] = libraryColor(of(key));
    const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    expect(y).toBeGreaterThan(least);
    expect(y).toBeLessThan(most);
  });
  // ior at 589 nm: soda-lime glass 1.52, water 1.333, PMMA 1.49 (common practice)
  it.each([
    ['glass-clear', 1.52],
    ['water', 1.333],
    ['open-water', 1.333],
    ['acrylic-clear', 1.49]
  ] as const)('%s refracts by %s', (key, ior) => {
    expect(of(key).ior).toBeCloseTo(ior, 2);
  });
});
