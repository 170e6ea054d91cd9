import { describe, expect, it } from 'vitest';
import { luminance } from '../color/spaces';
import { resampleWeb, webFlux } from '../lights/web/web';
import { dot, length, type Vec3 } from '../math/vec3';
import { type AddedLamp, frameOf, lightOf, spotCone, spotIntensity, type Webs } from './added-lamps';

const lamp: AddedLamp = {
  name: 'Spot',
  form: 'spot',
  position_m: [1, 2, 3],
  direction: [0, -2, 0],
  turn_deg: 0,
  width_m: 0.5,
  height_m: 2,
  beam_deg: 40,
  lumen: 1000,
  kelvin: 3000,
  tint: 0,
  photometry: null
};
const angles = Array.from({ length: 91 }, (_, i) => i * 2);
const web = resampleWeb({
  planes: [0],
  angles,
  candela: [angles.map((g) => 300 * Math.max(0, Math.cos((g * Math.PI) / 180)))]
});
const webs: Webs = new Map([['halm', web]]);
const none: Webs = new Map();

describe('a lamp that a brief adds', () => {
  it('gives off its lumen as a point: 4 pi times its candela', () => {
    const light = lightOf({ ...lamp, form: 'point' }, none);
    if (light.kind !== 'point') throw new Error(light.kind);
    expect(luminance(light.intensity) * 4 * Math.PI).toBeCloseTo(1000, 6);
    expect(light.intensity[0]).toBeGreaterThan(light.intensity[2]);
  });
  it('gives off its lumen as a spot, whatever its beam, half as bright at half the beam', () => {
    for (const beam of [8, 24, 60, 110]) {
      const { inner, outer } = spotCone(beam);
      const [ci, co] = [Math.cos(inner), Math.cos(outer)];
      const falls = (t: number) => Math.min(1, Math.max(0, (Math.cos(t) - co) / (ci - co))) ** 2;
      const candela = spotIntensity(1000, beam);
      let flux = 0;
      const n = 20_000;
      for (let i = 0; i < n; i++) {
        const t = (Math.PI * (i + 0.5)) / n;
        flux += candela * falls(t) * 2 * Math.PI * Math.sin(t) * (Math.PI / n);
      }
      expect(flux / 1000).toBeCloseTo(1, 3);
      expect(falls((beam * Math.PI) / 360)).toBeCloseTo(0.5, 6);
    }
  });
  it('gives off its lumen as a panel: pi times luminance times area (Lambert)', () => {
    const light = lightOf({ ...lamp, form: 'panel' }, none);
    if (light.kind !== 'rectangle') throw new Error(light.kind);
    expect(luminance(light.radiance) * Math.PI * light.width * light.height).toBeCloseTo(1000, 6);
    expect(light.direction).toEqual([0, -1, 0]);
  });
  it('shines as its photometric file says, with its own lumen', () => {
    const light = lightOf({ ...lamp, photometry: 'halm' }, webs);
    if (light.kind !== 'web') throw new Error(light.kind);
    expect(luminance(light.tint) * webFlux(light.web)).toBeCloseTo(1000, 6);
    expect(() => lightOf({ ...lamp, photometry: 'gone' }, webs)).toThrow(/photometric file gone is not here/);
  });
  it('stands upright and is turned about where it shines to', () => {
    for (const front of [
      [0, 0, -1],
      [0.6, -0.8, 0],
      [0, -1, 0],
      [0, 1, 0]
    ] as Vec3[]) {
      for (const turn of [0, 35, 90]) {
        const { right, up } = frameOf(front, turn);
        for (const v of [right, up]) expect(length(v)).toBeCloseTo(1, 9);
        for (const d of [dot(right, up), dot(right, front), dot(up, front)]) expect(d).toBeCloseTo(0, 9);
      }
    }
    expect(frameOf([0, 0, -1], 0).up[1]).toBeCloseTo(1, 9);
    expect(frameOf([0, 0, -1], 90).right[1]).toBeCloseTo(1, 9);
  });
});
