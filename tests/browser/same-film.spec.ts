/** The kernel in the browser gives the bits that it gives here: one thread or another, whole or resumed. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { BRIEF_DEFAULTS, SURROUNDINGS_DEFAULTS } from '../../src/core/brief/brief';
import { createCameraFrame } from '../../src/core/camera/lens';
import { CHANNELS } from '../../src/core/film/film';
import { LAYERS_DEFAULTS } from '../../src/core/scene/scene';
import { instantiate } from '../../src/kernel/host/kernel';
import { compileScene } from '../../src/kernel/host/rig';
import { layOut, NO_LIMITS } from '../../src/kernel/host/settings';
import { makeLight } from '../../src/core/recipe/light';
import { glowing, kernelModule, makeScene, matte, quad, root, sphere, viewFrom } from '../support/scenes';

const SIZE = 64;
const SAMPLES = 16;

function layOutScene() {
  const scene = makeScene(
    [
      quad([-3, 0, 3], [3, 0, 3], [3, 0, -3], [-3, 0, -3], { roughness: 0.4, baseColor: [0.5, 0.4, 0.3, 1] }),
      sphere(
        [-1, 0.5, 0],
        0.5,
        { transmission: 1, solid: true, roughness: 0, layers: { ...LAYERS_DEFAULTS, dispersion: 1 } },
        false,
        16,
        32
      ),
      sphere(
        [0.1, 0.5, 0],
        0.5,
        { metallic: 1, roughness: 0.25, layers: { ...LAYERS_DEFAULTS, iridescence: 1 } },
        false,
        16,
        32
      ),
      sphere(
        [1.2, 0.5, 0],
        0.5,
        {
          ...matte([0.5, 0.1, 0.1]),
          layers: { ...LAYERS_DEFAULTS, coat: 1, sheenColor: [0.4, 0.4, 0.4], sheenRoughness: 0.5 }
        },
        false,
        16,
        32
      ),
      sphere([0.4, 1.6, 0.6], 0.15, glowing(40_000), false, 8, 16)
    ],
    [{ kind: 'point', name: '', position: [2, 2, 1], intensity: [3000, 2500, 2000] }]
  );
  const light = makeLight({ ...BRIEF_DEFAULTS, surroundings: SURROUNDINGS_DEFAULTS.sky }, scene, null);
  const camera = createCameraFrame(viewFrom([0, 1.2, 4], [0, 0.5, 0], { f_number: 2.8 }), 1)!;
  return layOut(
    compileScene(scene, kernelModule),
    {
      width: SIZE,
      height: SIZE,
      camera,
      bounces: 8,
      limits: NO_LIMITS,
      layers: 0,
      aovs: null,
      firefly: 0,
      ground: null,
      seed: 1,
      light,
      indoors: false
    },
    2
  );
}

test('a tile has the same bits in the browser and here, on any thread, whole or resumed', async ({ page }) => {
  const { memory, buffers } = layOutScene();
  const image = Buffer.from(new Uint8Array(memory.buffer).slice());
  const bytes = SIZE * SIZE * CHANNELS * 4;
  const here = instantiate(kernelModule, memory, 0);
  here.renderTile(buffers[0]!, 0, 0, SIZE, SIZE, 0, SAMPLES);
  const tile = Buffer.from(new Uint8Array(memory.buffer, buffers[0]!, bytes).slice());
  const expected = createHash('sha256').update(tile).digest('hex');
  // there is something in it
  expect(new Float32Array(tile.buffer, tile.byteOffset, bytes / 4).reduce((sum, v) => sum + v, 0)).toBeGreaterThan(
    1000
  );

  const isolated = { 'Cross-Origin-Opener-Policy': 'same-origin', 'Cross-Origin-Embedder-Policy': 'require-corp' };
  await page.route('**/same-film/**', (route) => {
    const name = route.request().url().split('/').pop();
    if (name === 'kernel.wasm')
      return route.fulfill({ body: readFileSync(join(root, 'build/kernel.wasm')), contentType: 'application/wasm' });
    if (name === 'memory.bin') return route.fulfill({ body: image, contentType: 'application/octet-stream' });
    return route.fulfill({
      body: '<!doctype html><title>same film</title>',
      contentType: 'text/html',
      headers: isolated
    });
  });
  await page.goto('/same-film/page');
  const hashes = await page.evaluate(
    async ({ buffers, bytes, size, samples }) => {
      const [wasm, start] = await Promise.all(
        ['kernel.wasm', 'memory.bin'].map(async (name) => (await fetch(name)).arrayBuffer())
      );
      const module = await WebAssembly.compile(wasm!);
      const render = async (thread: number, cuts: number[]) => {
        const pages = start!.byteLength / 65_536;
        const memory = new WebAssembly.Memory({ initial: pages, maximum: pages, shared: true });
        new Uint8Array(memory.buffer).set(new Uint8Array(start!));
        const { exports } = await WebAssembly.instantiate(module, { env: { memory, abort() {} } });
        const kernel = exports as {
          setThread(t: number): void;
          renderTile(b: number, x: number, y: number, w: number, h: number, first: number, count: number): void;
        };
        kernel.setThread(thread);
        let first = 0;
        for (const end of [...cuts, samples]) {
          kernel.renderTile(buffers[thread]!, 0, 0, size, size, first, end - first);
          first = end;
        }
        const digest = await crypto.subtle.digest(
          'SHA-256',
          new Uint8Array(memory.buffer, buffers[thread]!, bytes).slice()
        );
        return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
      };
      return [await render(0, []), await render(1, []), await render(1, [1, 4, 9])];
    },
    { buffers, bytes, size: SIZE, samples: SAMPLES }
  );
  expect(hashes).toEqual([expected, expected, expected]);
});
