import { describe, expect, it } from 'vitest';
import { dark, glowing, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { dot, normalize, scale, subtract, type Vec3 } from '../../core/math/vec3';
import { createRandom } from '../../core/sampling/random';
import type { SceneLight } from '../../core/scene/scene';
import { buildLightTree, joinLightTrees, type TreeLight, type TreeNode, widen } from './light-tree';

const random = createRandom(3);
const point = (at: Vec3, strength: number): TreeLight => ({
  min: at,
  max: at,
  strength,
  axis: [0, 1, 0],
  spread: Math.PI,
  beyond: 0
});
const facing = (at: Vec3, axis: Vec3, strength = 1): TreeLight => ({
  min: at,
  max: at.map((v) => v + 0.1) as unknown as Vec3,
  strength,
  axis: normalize(axis),
  spread: 0,
  beyond: Math.PI / 2
});
const anywhere = (): Vec3 => [random() * 10, random() * 3, random() * 10];

describe('the tree over the lamps', () => {
  it('holds every lamp once, children inside their parents and with their strength together', () => {
    const lights = Array.from({ length: 500 }, () =>
      random() < 0.5
        ? point(anywhere(), random() + 0.1)
        : facing(anywhere(), [random() - 0.5, random() - 0.5, random() - 0.5], random() + 0.1)
    );
    const nodes = buildLightTree(lights);
    expect(nodes).toHaveLength(999);
    expect(
      nodes
        .filter((n) => n.light >= 0)
        .map((n) => n.light)
        .sort((a, b) => a - b)
    ).toEqual(lights.map((_, i) => i));
    for (const [i, node] of nodes.entries()) {
      if (node.light >= 0) continue;
      const children = [nodes[i + 1]!, nodes[node.right]!];
      expect(children.map((c) => c.parent)).toEqual([i, i]);
      expect(children[0]!.strength + children[1]!.strength).toBeCloseTo(node.strength, 9);
      for (const child of children) {
        for (let k = 0; k < 3; k++) {
          expect(child.min[k]!).toBeGreaterThanOrEqual(node.min[k]!);
          expect(child.max[k]!).toBeLessThanOrEqual(node.max[k]!);
        }
      }
    }
  });
  it('joins two trees under one root, which is a tree again', () => {
    const some = Array.from({ length: 30 }, () => point(anywhere(), 1));
    const more = Array.from({ length: 20 }, () => facing(anywhere(), [random() - 0.5, 1, 0], 2));
    const joined = joinLightTrees(buildLightTree(some), buildLightTree(more, 30));
    const leaves = (nodes: readonly TreeNode[], i: number): number[] =>
      nodes[i]!.light >= 0 ? [nodes[i]!.light] : [...leaves(nodes, i + 1), ...leaves(nodes, nodes[i]!.right)];
    expect(leaves(joined, 0).sort((a, b) => a - b)).toEqual(Array.from({ length: 50 }, (_, i) => i));
    expect(joined[0]!.strength).toBeCloseTo(70, 9);
    for (const [i, n] of joined.entries())
      if (n.light < 0) expect([joined[i + 1]!.parent, joined[n.right]!.parent]).toEqual([i, i]);
    expect(joinLightTrees([], joined)).toBe(joined);
    expect(joinLightTrees(joined, [])).toBe(joined);
  });
  it('gives each node a cone that holds every lamp below it', () => {
    const lights = Array.from({ length: 200 }, () =>
      facing(anywhere(), [random() - 0.3, random() - 0.3, random() - 0.3])
    );
    const nodes = buildLightTree(lights);
    const below = (i: number): number[] =>
      nodes[i]!.light >= 0 ? [nodes[i]!.light] : [...below(i + 1), ...below(nodes[i]!.right)];
    for (const [i, node] of nodes.entries())
      for (const light of below(i))
        expect(Math.acos(Math.min(1, Math.max(-1, dot(node.axis, lights[light]!.axis))))).toBeLessThan(
          node.spread + 1e-6
        );
  });
  it('is taken together to nodes of four that know their place', () => {
    for (const n of [1, 2, 5, 333]) {
      const wide = widen(buildLightTree(Array.from({ length: n }, () => point(anywhere(), 1))));
      expect(wide.length).toBeLessThanOrEqual(Math.max(1, n));
      expect(
        wide
          .flatMap((w) => w.children)
          .filter((c) => c.light >= 0)
          .map((c) => c.light)
          .sort((a, b) => a - b)
      ).toEqual(Array.from({ length: n }, (_, i) => i));
      for (const [i, w] of wide.entries())
        for (const [slot, c] of w.children.entries()) if (c.light < 0) expect(wide[c.node]!.place).toBe(i * 4 + slot);
      expect(wide[0]!.place).toBe(-1);
    }
  });
  it('puts lamps that face the same way together', () => {
    const up = Array.from({ length: 20 }, () => facing([random(), 0, random()], [0, 1, 0]));
    const down = Array.from({ length: 20 }, () => facing([random(), 0, random()], [0, -1, 0]));
    const heap = buildLightTree([
      ...up,
      ...down,
      ...up.map((l) => ({
        ...l,
        min: l.min.map((v) => v + 30) as unknown as Vec3,
        max: l.max.map((v) => v + 30) as unknown as Vec3
      }))
    ]);
    // the far group is one of the root's children
    expect(Math.min(heap[1]!.spread, heap[heap[0]!.right]!.spread)).toBe(0);
  });
  it('leaves out lamps without strength, and is empty when none has any; ends on lamps in one place', () => {
    expect(buildLightTree([point([0, 0, 0], 0)])).toEqual([]);
    expect(buildLightTree([point([0, 0, 0], 0), point([1, 0, 0], 2)]).map((n) => n.light)).toEqual([1]);
    expect(buildLightTree(Array.from({ length: 1000 }, () => point([1, 2, 3], 1)))).toHaveLength(1999);
  });
});

describe('many lamps', () => {
  const floor = quad([-5, 0, 5], [5, 0, 5], [5, 0, -5], [-5, 0, -5], matte(1));
  const spread = (n: number, make: (at: Vec3, share: number) => void) => {
    const side = Math.ceil(Math.sqrt(n));
    for (let i = 0; i < n; i++)
      make([((i % side) + 0.5) * (10 / side) - 5, 2.5, (Math.floor(i / side) + 0.5) * (10 / side) - 5], 1 / n);
  };

  it('points and spots give what inverse squares and cosines give, summed', () => {
    const lights: SceneLight[] = [];
    spread(64, (at, share) =>
      lights.push({ kind: 'point', name: '', position: at, intensity: [100 * share, 100 * share, 100 * share] })
    );
    lights.push({
      kind: 'spot',
      name: '',
      position: [0, 2, 0],
      direction: [0, -1, 0],
      intensity: [30, 30, 30],
      innerAngle: 0.6,
      outerAngle: 0.61
    });
    const { mean } = renderScene(
      makeScene([floor], lights),
      viewFrom([1, 0.3, 0.5], [1, 0, 0.5], { projection: 'parallel', height_m: 0.01 }),
      { samples: 4096, bounces: 1, light: dark, width: 8, height: 8 }
    );
    let expected = 0;
    for (const l of lights) {
      if (l.kind !== 'point' && l.kind !== 'spot') continue;
      const way = subtract(l.position, [1, 0, 0.5]);
      const d = Math.hypot(...way);
      const cosine = way[1] / d;
      if (l.kind === 'spot' && dot(scale(way, -1 / d), l.direction) < Math.cos(l.outerAngle)) continue;
      expected += (l.intensity[0] * cosine) / (d * d) / Math.PI;
    }
    expect(Math.abs(mean[0] / expected - 1)).toBeLessThan(0.01);
  });

  it('a ceiling of a hundred small glowing squares gives what ten of the same power give within the same noise', () => {
    // of equal samples; both ceilings give nearly the same light to a place far below
    const picture = (n: number, samples: number) => {
      const pieces = [floor];
      spread(n, ([x, y, z], share) => {
        const h = 0.1;
        pieces.push(
          quad(
            [x - h, y, z - h],
            [x + h, y, z - h],
            [x + h, y, z + h],
            [x - h, y, z + h],
            glowing((400 * share) / (4 * h * h))
          )
        );
      });
      return renderScene(makeScene(pieces), viewFrom([0, 2.2, 0], [0, 0, 0], { projection: 'parallel', height_m: 4 }), {
        width: 24,
        height: 24,
        samples,
        bounces: 1,
        light: dark
      }).pixels.map((p) => p[0]);
    };
    const noise = (n: number) => {
      const rough = picture(n, 16);
      const fine = picture(n, 2048);
      return Math.sqrt(rough.reduce((sum, v, i) => sum + (v / fine[i]! - 1) ** 2, 0) / rough.length);
    };
    const [few, many] = [noise(9), noise(100)];
    expect(many).toBeLessThan(Math.SQRT2 * few + 0.02);
    expect(many).toBeLessThan(0.25);
  });
});
