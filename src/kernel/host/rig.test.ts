import { describe, expect, it } from 'vitest';
import { CHANNELS } from '../../core/film/film';
import { createCameraFrame } from '../../core/camera/lens';
import { addSet, type LitScene, type PlainSurface } from '../../core/scene/lit-scene';
import { MATERIAL_DEFAULTS, type Scene } from '../../core/scene/scene';
import { dark, glowing, kernelModule, makeScene, matte, quad, sphere, viewFrom } from '../../../tests/support/scenes';
import { instantiate } from './kernel';
import { buildPack } from './pack';
import { buildRig, compileScene, type PackedScene } from './rig';
import { layOut, NO_LIMITS } from './settings';

const SIZE = 16;
const camera = createCameraFrame(viewFrom([0, 1.2, 4], [0, 0.6, 0]), 1)!;
const ball = sphere([0, 0.6, 0], 0.5, { roughness: 0.3, baseColor: [0.6, 0.3, 0.2, 1] }, false, 12, 24);
const model = makeScene([ball]);
const floor = quad([-3, 0, 3], [3, 0, 3], [3, 0, -3], [-3, 0, -3], matte(0.6));
const box = quad([-1, 2.5, 1], [-1, 2.5, -1], [1, 2.5, -1], [1, 2.5, 1], glowing(900));

const asSurface = ({ positions, indices, material }: typeof floor, normal: readonly number[]): PlainSurface => ({
  positions: Float32Array.from(positions),
  normals: Float32Array.from(positions, (_, i) => normal[i % 3]!),
  indices: Uint32Array.from(indices),
  material: { ...MATERIAL_DEFAULTS, ...material }
});
const surfaces = [asSurface(floor, [0, 1, 0]), asSurface(box, [0, -1, 0])];
const lit = addSet(model, surfaces);

function film(packed: PackedScene): Float32Array {
  const { memory, buffers } = layOut(
    packed,
    {
      width: SIZE,
      height: SIZE,
      camera,
      bounces: 4,
      firefly: 0,
      ground: null,
      seed: 1,
      light: dark,
      indoors: false,
      limits: NO_LIMITS,
      layers: 0,
      aovs: null
    },
    1
  );
  instantiate(kernelModule, memory, 0).renderTile(buffers[0]!, 0, 0, SIZE, SIZE, 0, 64);
  return new Float32Array(memory.buffer, buffers[0]!, SIZE * SIZE * CHANNELS).slice();
}
const mean = (values: Float32Array) => values.reduce((sum, v) => sum + v, 0) / values.length;

describe('a rig', () => {
  it('gives the picture that the same surfaces give as part of the model', () => {
    const whole = compileScene(makeScene([ball, floor, box]), kernelModule);
    const apart = compileScene(lit, kernelModule);
    const [one, other] = [film(whole), film(apart)];
    expect(mean(one)).toBeGreaterThan(0.1);
    expect(mean(other) / mean(one)).toBeCloseTo(1, 2);
    // pixel by pixel, but for the few paths that rounding sends elsewhere
    const near = one.filter((v, i) => Math.abs(v - other[i]!) <= 1e-3 * Math.abs(v) + 1e-4).length;
    expect(near / one.length).toBeGreaterThan(0.97);
  });

  it('is made for a pack without it, and leaves that as it is', () => {
    const { bytes } = buildPack(model, kernelModule, () => 0);
    const before = bytes.slice();
    const rig = buildRig(bytes.subarray(0, 256), lit, kernelModule);
    expect(bytes).toEqual(before);
    const whole = compileScene(lit, kernelModule);
    expect(whole.pack).toEqual(bytes);
    expect(whole.rig).toEqual(rig);
    // brighter lamps, other colours: another rig, the same pack
    const brighter: LitScene = {
      ...lit,
      materials: lit.materials.map((m) => ({
        ...m,
        emissive: [m.emissive[0] * 2, m.emissive[1] * 2, m.emissive[2] * 2] as const
      }))
    };
    const twice = film({ pack: bytes, rig: buildRig(bytes, brighter, kernelModule) });
    expect(mean(twice)).toBeGreaterThan(mean(film(whole)) * 1.5);
  });

  it('stands alone where there is no model, and adds nothing where there is none of it', () => {
    const empty: Scene = makeScene([]);
    expect(mean(film(compileScene(addSet(empty, surfaces), kernelModule)))).toBeGreaterThan(0.1);
    const { pack, rig } = compileScene(model, kernelModule);
    const root = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset).getUint32(8, true);
    expect(root(rig)).toBe(root(pack));
  });
});
