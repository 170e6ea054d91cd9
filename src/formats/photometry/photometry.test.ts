/**
 * Photometric files: a Lambertian lamp of 1,000 cd gives pi times 1,000 lm, in both formats and every symmetry they may
 * state.
 */
import { describe, expect, it } from 'vitest';
import { resampleWeb, polarCurve, webFlux } from '../../core/lights/web/web';
import { readEulumdat } from './read-eulumdat';
import { readLm63 } from './read-lm63';
import { readPhotometric } from './read-photometric';
import { PhotometryRefused } from './refused';

const angles = Array.from({ length: 37 }, (_, i) => i * 5);
const lambert = (factor = 1) => angles.map((g) => 1000 * factor * Math.max(0, Math.cos((g * Math.PI) / 180)));
/** Brighter towards C0: an intensity that differs by plane. */
const skewed = (c: number) => 1 + 0.5 * Math.cos((c * Math.PI) / 180);

function lm63(planes: number[], value: (c: number) => number[], change: (text: string) => string = (t) => t): string {
  return change(
    [
      'IESNA:LM-63-2002',
      '[TEST] none',
      '[LUMINAIRE] Halm pendant',
      'TILT=NONE',
      `1 1000 1 ${angles.length} ${planes.length} 1 2 0.1 0.1 0`,
      '1 1 12',
      angles.join(' '),
      planes.join(' '),
      ...planes.map((c) =>
        value(c)
          .map((v) => v.toFixed(4))
          .join(' ')
      )
    ].join('\r\n')
  );
}

function eulumdat(symmetry: number, planes: number[], given: number[], value: (c: number) => number[]): string {
  const head = [
    'Halm',
    '1',
    String(symmetry),
    String(planes.length),
    '30',
    String(angles.length),
    '5',
    'none',
    'Halm pendant',
    '1',
    'halm.ldt',
    '2026',
    '100',
    '0',
    '50',
    '80',
    '0',
    '0',
    '0',
    '0',
    '0',
    '100',
    '100',
    '1',
    '0',
    '1'
  ];
  const set = ['1', 'LED', '500', '3000', '80', '12'];
  const ratios = Array.from({ length: 10 }, () => '0.5');
  return [
    ...head,
    ...set,
    ...ratios,
    ...planes.map(String),
    ...angles.map(String),
    ...given.flatMap((c) => value(c).map((v) => (v * 2).toFixed(4)))
  ].join('\r\n');
}
const around = Array.from({ length: 12 }, (_, i) => i * 30);

describe('photometric files', () => {
  it('a Lambertian lamp of 1,000 cd gives pi times 1,000 lm', () => {
    // ANSI/IES LM-63 and the EULUMDAT description; the flux is the closed form. 5 degree steps read linearly lose 0.13
    // %.
    for (const planes of [[0], [0, 45, 90], [0, 90, 180], [0, 90, 180, 270, 360]]) {
      const { web, name, watts } = readLm63(lm63(planes, () => lambert()));
      expect(Math.abs(webFlux(resampleWeb(web)) / (Math.PI * 1000) - 1)).toBeLessThan(2e-3);
      expect([name, watts]).toEqual(['Halm pendant', 12]);
    }
    const given = {
      0: around,
      1: [0],
      2: [0, 30, 60, 90, 120, 150, 180],
      3: [270, 300, 330, 0, 30, 60, 90],
      4: [0, 30, 60, 90]
    };
    for (const [symmetry, planes] of Object.entries(given)) {
      const { web } = readEulumdat(eulumdat(Number(symmetry), around, planes, () => lambert()));
      expect(Math.abs(webFlux(resampleWeb(web)) / (Math.PI * 1000) - 1)).toBeLessThan(2e-3);
    }
  });

  it('both formats agree on a lamp that differs by plane', () => {
    const one = resampleWeb(
      readLm63(
        lm63(
          around.filter((c) => c <= 180),
          (c) => lambert(skewed(c))
        )
      ).web
    );
    const other = resampleWeb(
      readEulumdat(eulumdat(2, around, [0, 30, 60, 90, 120, 150, 180], (c) => lambert(skewed(c)))).web
    );
    expect([one.planes, one.angles]).toEqual([12, 37]);
    expect(other.candela.length).toBe(one.candela.length);
    for (let i = 0; i < one.candela.length; i++)
      expect(Math.abs(one.candela[i]! - other.candela[i]!)).toBeLessThan(0.01);
    expect(one.candela[0]).toBeCloseTo(1500, 1);
    expect(one.candela[6 * one.angles]).toBeCloseTo(500, 1);
    // mirrored at the plane through C0: C60 and C300 are alike
    expect(one.candela[10 * one.angles]).toBeCloseTo(one.candela[2 * one.angles]!, 3);
  });

  it('symmetry about C90 mirrors C30 to C150', () => {
    const web = resampleWeb(
      readEulumdat(
        eulumdat(3, around, [270, 300, 330, 0, 30, 60, 90], (c) => lambert(1 + 0.3 * Math.sin((c * Math.PI) / 180)))
      ).web
    );
    expect(web.candela[5 * web.angles]).toBeCloseTo(1000 * 1.15, 1);
    expect(web.candela[7 * web.angles]).toBeCloseTo(1000 * 0.85, 1);
  });

  it('a narrow beam keeps its measured angles', () => {
    const text = lm63([0], () => angles.map((g) => (g === 0 ? 9000 : 0)));
    const web = resampleWeb(readLm63(text).web);
    expect(web.candela[0]).toBe(9000);
    expect(web.candela[1]).toBe(0);
  });

  it('says what is wrong and in which line', () => {
    expect(() => readLm63('hello')).toThrow(/line 1: there is no line TILT=/);
    expect(() =>
      readLm63(
        lm63(
          [0],
          () => lambert(),
          (t) => t.replace('0 5 10 15', '0 5 200 15')
        )
      )
    ).toThrow(/line 7: the vertical angle 200 is impossible; it lies between 0 and 180/);
    expect(() =>
      readLm63(
        lm63(
          [0],
          () => lambert(),
          (t) => t.replace('0 5 10 15', '0 5 5 15')
        )
      )
    ).toThrow(/not ascending/);
    expect(() => readLm63(lm63([0], () => lambert().map((v) => v - 20)))).toThrow(/light cannot be less than none/);
    expect(() =>
      readLm63(
        lm63(
          [0],
          () => lambert(),
          (t) => t.slice(0, -200)
        )
      )
    ).toThrow(/ends before its candela/);
    expect(() =>
      readLm63(
        lm63(
          [0],
          () => lambert(),
          (t) => t.replace('1 1 12', 'x 1 12')
        )
      )
    ).toThrow(/line 6: "x" stands where the ballast factor should/);
    expect(() => readLm63(lm63([0, 45], () => lambert()))).toThrow(/leave part of the turn open/);
    expect(() => readEulumdat(eulumdat(7, around, [0], () => lambert()))).toThrow(/line 3: symmetry 7 does not exist/);
    expect(() =>
      readEulumdat(
        eulumdat(1, around, [0], () => lambert())
          .split('\r\n')
          .slice(0, 60)
          .join('\n')
      )
    ).toThrow(/missing; the file is cut short/);
  });
  it('are told apart by what is in them, names in either encoding', () => {
    expect(readPhotometric(new TextEncoder().encode(lm63([0], () => lambert()))).name).toBe(
      readLm63(lm63([0], () => lambert())).name
    );
    const latin = Uint8Array.from(eulumdat(1, [0], [0], () => lambert()).replaceAll('Halm pendant', 'H\u00e4lm'), (c) =>
      c.charCodeAt(0)
    );
    expect(readPhotometric(latin).name).toContain('H\u00e4lm');
    expect(() => readPhotometric(new TextEncoder().encode('a shopping list'))).toThrow(/line \d+/);
  });
  it('are drawn over a whole turn of gamma in two planes', () => {
    const curve = polarCurve(resampleWeb(readLm63(lm63([0, 90, 180, 270, 360], (c) => lambert(skewed(c)))).web));
    expect(curve.along).toHaveLength(145);
    // straight down in the middle, C180 before it and C0 behind
    expect(curve.along[72]).toBeCloseTo(1500, 0);
    expect(curve.along[72 + 24]! / curve.along[72 - 24]!).toBeCloseTo(1.5 / 0.5, 1);
    expect(curve.across[72 + 24]).toBeCloseTo(curve.across[72 - 24]!, 0);
  });
});

describe('a hostile photometric file', () => {
  const seconds = (text: string) => {
    const bytes = new TextEncoder().encode(text);
    const begin = performance.now();
    expect(() => readPhotometric(bytes)).toThrow(PhotometryRefused);
    return performance.now() - begin;
  };
  it.each([
    ['line ends', (n: number) => '\n'.repeat(n)],
    ['numbers on one line', (n: number) => `TILT=NONE\n1 1 1 ${n} 1 1 1 0 0 0 1 1 1 ${'0 '.repeat(n)}`]
  ])('of many %s takes time in proportion to its length, not to the square', (_, text) => {
    // eight times as long; quadratic would take 64 times
    const [short, long] = [20_000, 160_000].map((n) => Math.min(...[0, 1, 2].map(() => seconds(text(n)))));
    expect(long! / (short! + 1)).toBeLessThan(30);
  });
});
