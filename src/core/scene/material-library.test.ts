import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { type AssignedMaterial, assignMaterials } from './assign-materials';
import { isMeant } from './material-rule';
import { libraryColor, libraryMaterial, MATERIAL_FAMILIES, MATERIAL_LIBRARY } from './material-library';
import { MATERIAL_DEFAULTS, type SceneMaterial } from './scene';
import { suggestMaterial } from './suggest-material';
import { swatchPiece } from './swatch-piece';

describe('the library of materials', () => {
  it('has more than sixty, each by a key of its own, in every family', () => {
    expect(MATERIAL_LIBRARY.length).toBeGreaterThan(80);
    expect(new Set(MATERIAL_LIBRARY.map((m) => m.key)).size).toBe(MATERIAL_LIBRARY.length);
    for (const family of Object.keys(MATERIAL_FAMILIES))
      expect(MATERIAL_LIBRARY.filter((m) => m.family === family).length).toBeGreaterThan(2);
  });
  it('reflects as real surfaces do: none of 2 % and none above 90 %, but for metals', () => {
    for (const { key, material } of MATERIAL_LIBRARY) {
      if (material.metallic || material.transmission) continue;
      const most = Math.max(...libraryColor(material));
      expect(most, key).toBeLessThan(0.9);
      expect(most, key).toBeGreaterThan(0.019);
    }
  });
});

const becomes = (material: string, key: string): AssignedMaterial => ({
  material,
  part: null,
  becomes: key,
  change: null,
  texture: null
});
const of = (...materials: SceneMaterial[]) => ({ materials, textures: [] });

describe('a rule', () => {
  it('speaks of materials by name, in whatever letters, with * for any', () => {
    expect(isMeant('Oak*', 'oak_floor.001')).toBe(true);
    expect(isMeant('*glass', 'Window Glass')).toBe(true);
    expect(isMeant('Oak', 'Oak floor')).toBe(false);
    expect(isMeant('a.c', 'abc')).toBe(false);
  });
  it('keeps holes, glow and name of the file, and the first one decides', () => {
    const leaf: SceneMaterial = {
      ...MATERIAL_DEFAULTS,
      name: 'leaf',
      alphaMode: 'mask',
      baseTexture: { texture: 0, uvSet: 0, wrapS: 'repeat', wrapT: 'repeat', transform: [1, 0, 0, 0, 1, 0] },
      emissive: [3, 3, 3]
    };
    const rules = [becomes('le*', 'brass-polished'), becomes('leaf', 'lawn')];
    const [worn] = assignMaterials(of(leaf), rules).materials;
    expect(worn).toMatchObject({ name: 'leaf', metallic: 1, alphaMode: 'mask', emissive: [3, 3, 3] });
    expect(worn!.baseTexture).toBe(leaf.baseTexture);
    expect(() => assignMaterials(of(leaf), [becomes('leaf', 'gauze')])).toThrow(/"gauze" is not/);
  });
  it('leaves a pane thin, and makes a body of glass of what was opaque', () => {
    const pane: SceneMaterial = { ...MATERIAL_DEFAULTS, name: 'pane', transmission: 1, roughness: 0 };
    const glass = [becomes('*', 'glass-smoked')];
    expect(assignMaterials(of(pane), glass).materials[0]).toMatchObject({ solid: false, transmission: 1 });
    const block = { ...MATERIAL_DEFAULTS, name: 'block' };
    expect(assignMaterials(of(block), glass).materials[0]).toMatchObject({ solid: true, twoSided: false });
  });
  it('is seen: a card of half reflectance becomes white paint', () => {
    const card = makeScene([quad([-9, -9, 0], [9, -9, 0], [9, 9, 0], [-9, 9, 0], { ...matte(0.3), name: 'card' })]);
    const mean = (scene: typeof card) =>
      renderScene(scene, viewFrom([0, 0, 5], [0, 0, 0]), { width: 8, height: 8, samples: 64 }).mean[0]!;
    const white = mean(assignMaterials(card, [becomes('card', 'paint-white')]));
    expect(white / mean(card)).toBeGreaterThan(2.4);
    expect(white).toBeLessThan(0.9);
  });
});

describe('a suggestion', () => {
  it('finds what a name says, in several languages and spellings', () => {
    const found = (name: string) => suggestMaterial(name)?.key ?? null;
    expect(found('Oak_oiled.002')).toBe('oak-oiled');
    expect(found('polished brass')).toBe('brass-polished');
    expect(found('Eiche natur')).toBe('oak-oiled');
    expect(found('M_Beton01')).toBe('concrete-cast');
    expect(found('windowGlass')).toBe('glass-clear');
    expect(found('Material.017')).toBe(null);
  });
  it('names what the library has', () => {
    for (const name of ['wood', 'metal', 'glas', 'putz', 'fabric', 'leder', 'grass', 'tyre', 'wall'])
      expect(libraryMaterial(suggestMaterial(name)?.key ?? ''), name).not.toBe(null);
  });
});

describe('the object of the swatches', () => {
  it('is one closed body that looks outwards, so that glass refracts in it', () => {
    const { geometry } = swatchPiece(MATERIAL_DEFAULTS);
    const { positions, normals, indices } = geometry;
    const place = (v: number) => [0, 1, 2].map((k) => Math.round(positions[v * 3 + k]! * 1e6)).join(' ');
    const edges = new Map<string, number>();
    for (let i = 0; i < indices.length; i += 3) {
      const corners = [0, 1, 2].map((k) => indices[i + k]!);
      const [a, b, c] = corners.map((v) => [...positions.subarray(v * 3, v * 3 + 3)]) as [number[], number[], number[]];
      const [u, v] = [b.map((x, k) => x - a[k]!), c.map((x, k) => x - a[k]!)] as [number[], number[]];
      const face = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
      // the nose begins as a line
      if (Math.hypot(...face) < 1e-12) continue;
      const n = normals.subarray(corners[0]! * 3, corners[0]! * 3 + 3);
      expect(face[0]! * n[0]! + face[1]! * n[1]! + face[2]! * n[2]!).toBeGreaterThan(0);
      for (const [p, q] of [
        [0, 1],
        [1, 2],
        [2, 0]
      ] as const) {
        const [from, to] = [place(corners[p]!), place(corners[q]!)];
        if (from === to) continue;
        edges.set(`${from} > ${to}`, (edges.get(`${from} > ${to}`) ?? 0) + 1);
      }
    }
    for (const [edge, times] of edges) {
      const [from, to] = edge.split(' > ');
      expect([edge, edges.get(`${to} > ${from}`)]).toEqual([edge, times]);
    }
  });
});
