/** Rectangle, disc, sphere and photometric web against closed forms, seen directly and by the light they give. */
import { describe, expect, it } from 'vitest';
import { dark, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import type { SceneLight } from '../../core/scene/scene';

const floor = quad([-20, 0, 20], [20, 0, 20], [20, 0, -20], [-20, 0, -20], matte(1));
/** Mean radiance of a spot of the floor below the lamp times pi: its illuminance. */
function illuminance(lights: SceneLight[], at: [number, number] = [0, 0], samples = 1024): number {
  const { mean } = renderScene(
    makeScene([floor], lights),
    viewFrom([at[0], 0.05, at[1]], [at[0], 0, at[1]], { projection: 'parallel', height_m: 1e-3 }),
    { samples, bounces: 1, light: dark, width: 8, height: 8 }
  );
  return mean[1] * Math.PI;
}
const white = (v: number): [number, number, number] => [v, v, v];

describe('shapes that shine', () => {
  it('a disc lights a place below its middle by pi L sin2 of half its angle', () => {
    // Lambert 1760, in any illumination handbook
    for (const [radius, height] of [
      [0.5, 1],
      [2, 0.5],
      [0.05, 2]
    ] as const) {
      const lamp: SceneLight = {
        kind: 'disc',
        name: 'd',
        position: [0, height, 0],
        direction: [0, -1, 0],
        radius,
        radiance: white(100)
      };
      const expected = Math.PI * 100 * (radius ** 2 / (radius ** 2 + height ** 2));
      expect(Math.abs(illuminance([lamp]) / expected - 1)).toBeLessThan(0.01);
    }
  });

  it('a sphere lights a place by pi L (r / d)2, cosine beside it', () => {
    // its solid angle seen by a small surface that it does not cut: exact for the uniform sphere wholly above the
    // horizon
    for (const [radius, height, aside] of [
      [0.5, 2, 0],
      [0.3, 1, 1.2],
      [0.9, 1, 0]
    ] as const) {
      const lamp: SceneLight = { kind: 'sphere', name: 's', position: [0, height, 0], radius, radiance: white(50) };
      const d = Math.hypot(height, aside);
      expect(
        Math.abs(illuminance([lamp], [aside, 0]) / (Math.PI * 50 * (radius / d) ** 2 * (height / d)) - 1)
      ).toBeLessThan(0.01);
    }
  });

  it('a rectangle lights a place by the polygon formula', () => {
    // Lambert: E = L/2 sum of edge angle times cosine of the edge's plane normal with the surface's normal
    const lamp: SceneLight = {
      kind: 'rectangle',
      name: 'r',
      position: [0.4, 1, 0.2],
      direction: [0, -1, 0],
      up: [0, 0, 1],
      width: 1.6,
      height: 0.6,
      radiance: white(80)
    };
    const corners = [
      [-0.4, 1, -0.1],
      [1.2, 1, -0.1],
      [1.2, 1, 0.5],
      [-0.4, 1, 0.5]
    ];
    let sum = 0;
    for (let i = 0; i < 4; i++) {
      const a = corners[i]!;
      const b = corners[(i + 1) % 4]!;
      const n = [a[1]! * b[2]! - a[2]! * b[1]!, a[2]! * b[0]! - a[0]! * b[2]!, a[0]! * b[1]! - a[1]! * b[0]!];
      const size = Math.hypot(...n);
      sum +=
        (Math.atan2(
          size,
          a.reduce((s, v, k) => s + v * b[k]!, 0)
        ) *
          n[1]!) /
        size;
    }
    expect(Math.abs(illuminance([lamp]) / ((80 / 2) * Math.abs(sum)) - 1)).toBeLessThan(0.01);
  });

  it('are seen from their front with their radiance, and not from behind', () => {
    const look = (light: SceneLight, from: [number, number, number]) =>
      renderScene(makeScene([floor], [light]), viewFrom(from, [0, 2, 0], { projection: 'parallel', height_m: 0.1 }), {
        samples: 4,
        bounces: 0,
        light: dark
      }).mean[1];
    const panel: SceneLight = {
      kind: 'rectangle',
      name: 'r',
      position: [0, 2, 0],
      direction: [0, 0, 1],
      up: [0, 1, 0],
      width: 1,
      height: 1,
      radiance: white(7)
    };
    expect(look(panel, [0, 2, 3])).toBeCloseTo(7, 4);
    expect(look(panel, [0, 2, -3])).toBe(0);
    expect(
      look({ kind: 'sphere', name: 's', position: [0, 2, 0], radius: 0.5, radiance: white(3) }, [2, 2, 2])
    ).toBeCloseTo(3, 4);
    expect(
      look(
        { kind: 'disc', name: 'd', position: [0, 2, 0], direction: [1, 0, 0], radius: 0.5, radiance: white(4) },
        [3, 2, 0.5]
      )
    ).toBeCloseTo(4, 4);
  });

  it('weigh both ways of finding them: a glossy floor sees them as it would by chance alone', () => {
    const shiny = {
      ...floor,
      material: { baseColor: [0.9, 0.9, 0.9, 1] as [number, number, number, number], metallic: 1, roughness: 0.25 }
    };
    const lamps: SceneLight[] = [
      {
        kind: 'rectangle',
        name: 'r',
        position: [0, 1, -1.5],
        direction: [0, -0.3, 1],
        up: [0, 1, 0],
        width: 2,
        height: 1,
        radiance: white(5)
      },
      { kind: 'sphere', name: 's', position: [1, 0.6, -1], radius: 0.4, radiance: white(9) }
    ];
    const view = viewFrom([0, 1, 2], [0.2, 0, 0], { projection: 'parallel', height_m: 0.6 });
    const both = renderScene(makeScene([shiny], lamps), view, {
      samples: 512,
      bounces: 1,
      light: dark,
      width: 24,
      height: 24
    }).mean[1];
    // the same as glowing meshes, which other tests hold to closed forms
    const mesh = makeScene(
      [
        shiny,
        quad(...corners(lamps[0] as Extract<SceneLight, { kind: 'rectangle' }>), {
          ...matte(0),
          emissive: white(5),
          twoSided: false
        })
      ],
      [lamps[1]!]
    );
    const other = renderScene(mesh, view, { samples: 512, bounces: 1, light: dark, width: 24, height: 24 }).mean[1];
    expect(Math.abs(both / other - 1)).toBeLessThan(0.01);
  });
});

function corners(
  l: Extract<SceneLight, { kind: 'rectangle' }>
): [[number, number, number], [number, number, number], [number, number, number], [number, number, number]] {
  const size = Math.hypot(...l.direction);
  const n = l.direction.map((v) => v / size) as [number, number, number];
  const right = [l.up[1] * n[2] - l.up[2] * n[1], l.up[2] * n[0] - l.up[0] * n[2], l.up[0] * n[1] - l.up[1] * n[0]];
  const k = Math.hypot(...right);
  const r = right.map((v) => v / k);
  const up = [n[1] * r[2]! - n[2] * r[1]!, n[2] * r[0]! - n[0] * r[2]!, n[0] * r[1]! - n[1] * r[0]!];
  const at = (a: number, b: number) =>
    l.position.map((v, i) => v + (a * l.width * r[i]! + b * l.height * up[i]!) / 2) as [number, number, number];
  return [at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)];
}

describe('a photometric web', () => {
  const angles = 181;
  const lambert = Float32Array.from({ length: angles }, (_, i) => 1000 * Math.max(0, Math.cos((i * Math.PI) / 180)));
  const lampOf = (web: { planes: number; angles: number; candela: Float32Array }): SceneLight => ({
    kind: 'web',
    name: 'w',
    position: [0, 2, 0],
    direction: [0, -1, 0],
    plane: [1, 0, 0],
    tint: white(1),
    web
  });

  it('lights by candela, inverse square and cosine', () => {
    // IES Lighting Handbook: E = I(gamma) cos(gamma) / d2
    const lamp = lampOf({ planes: 1, angles, candela: lambert });
    for (const aside of [0, 1, 3]) {
      const d = Math.hypot(2, aside);
      const cosine = 2 / d;
      expect(Math.abs(illuminance([lamp], [aside, 0], 16) / ((1000 * cosine * cosine) / (d * d)) - 1)).toBeLessThan(
        2e-3
      );
    }
  });

  it('turns counterclockwise as seen from above, from its plane C0', () => {
    const candela = new Float32Array(4 * angles);
    for (let c = 0; c < 4; c++) candela.fill(100 * (c + 1), c * angles, (c + 1) * angles);
    const lamp = lampOf({ planes: 4, angles, candela });
    // C0 to +x; from above with +x to the right, C90 goes up the page, which is -z
    const places: [[number, number], number][] = [
      [[1, 0], 100],
      [[0, -1], 200],
      [[-1, 0], 300],
      [[0, 1], 400]
    ];
    for (const [place, cd] of places) {
      const d = Math.hypot(2, 1);
      expect(Math.abs(illuminance([lamp], place, 16) / ((cd * (2 / d)) / (d * d)) - 1)).toBeLessThan(5e-3);
    }
  });
});
