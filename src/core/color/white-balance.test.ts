import { describe, expect, it } from 'vitest';
import type { Vec3 } from '../math/vec3';
import { kelvinToRec709 } from './kelvin';
import { encodeSrgb } from './srgb';
import { toneColor } from './tone';
import { balanceFor, balanceMatrix, type BalanceMatrix, balanceOfSeen } from './white-balance';
import { xyzToRec709 } from './spaces';

const times = (m: BalanceMatrix, v: Vec3) => m.map((row) => row[0] * v[0] + row[1] * v[1] + row[2] * v[2]);

describe('white balance', () => {
  it('makes a light of that kelvin and tint neutral and keeps its luminance', () => {
    for (const [kelvin, tint] of [
      [2700, 0],
      [3200, 0.5],
      [5000, -0.4],
      [9000, 1]
    ] as const) {
      for (const c of times(balanceMatrix({ kelvin, tint }), kelvinToRec709(kelvin, tint))) expect(c).toBeCloseTo(1, 3);
    }
  });
  it('is the adaptation that ICC profiles hold for D50 to D65: Bradford (Lindbloom, CIE RGB and XYZ pages, values from memory)', () => {
    // x 0.3457, y 0.3585 is D50; its kelvin and tint are found, then it must turn to white
    const d50 = xyzToRec709([0.96422, 1, 0.82521]);
    const found = balanceFor(d50)!;
    expect(Math.abs(found.kelvin - 5003)).toBeLessThan(12); // CIE 15: 5,003 K
    expect(found.tint).toBeCloseTo(0.32, 1); // daylight lies 0.003 above the black bodies
    for (const c of times(balanceMatrix(found), d50)) expect(c).toBeCloseTo(1, 2);
    // a red under it, by the published matrix of D50 to D65
    const red: Vec3 = [0.4, 0.2, 0.1];
    const adapted: Vec3 = [
      0.9555766 * red[0] - 0.0230393 * red[1] + 0.0631636 * red[2],
      -0.0282895 * red[0] + 1.0099416 * red[1] + 0.0210077 * red[2],
      0.0122982 * red[0] - 0.020483 * red[1] + 1.3299098 * red[2]
    ];
    const ours = times(balanceMatrix(found), xyzToRec709(red));
    for (const [i, c] of xyzToRec709(adapted).entries()) expect(ours[i]).toBeCloseTo(c, 2);
  });
  it('finds the light by which a displayed colour was white, whatever balance it is displayed in', () => {
    for (const now of [null, { kelvin: 4000, tint: 0.3 }]) {
      const grey = kelvinToRec709(3000, 0.4).map((c) => c * 0.05) as unknown as Vec3;
      const shown = (now ? times(balanceMatrix(now), grey) : grey) as Vec3;
      const toned: number[] = [];
      toneColor(toned, shown[0], shown[1], shown[2]);
      const found = balanceOfSeen(toned.map(encodeSrgb) as unknown as Vec3, now)!;
      expect(Math.abs(found.kelvin - 3000)).toBeLessThan(15);
      expect(found.tint).toBeCloseTo(0.4, 1);
    }
  });
  it('tells nothing from black, from what is blown out, from a strong colour', () => {
    expect(balanceOfSeen([0, 0, 0], null)).toBeNull();
    expect(balanceOfSeen([0.2, 0.5, 0.999], null)).toBeNull();
    expect(balanceOfSeen([0.1, 0.7, 0.1], null)).toBeNull();
  });
});
