/** The filter as browsers run it gives what the server's runtime gives. */
import { existsSync, readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { describe, expect, it } from 'vitest';
import { createRandom } from '../../src/core/sampling/random';
import { createNodeFilter } from '../../src/denoise/node-filter';
import { createWebFilter, type WebRuntime } from '../../src/denoise/web-filter';

const WEIGHTS = 'build/denoise/small.weights';
const FILES = `${pathToFileURL('node_modules/onnxruntime-web/dist').href}/`;

describe.skipIf(!existsSync(WEIGHTS))('the learned filter in WebAssembly', () => {
  it('agrees with the native one to a hundred-thousandth', async () => {
    const weights = readFileSync(WEIGHTS);
    const runtime = (await import(/* @vite-ignore */ `${FILES}ort.wasm.min.mjs`)) as WebRuntime;
    const web = await createWebFilter(runtime, weights, 1, FILES);
    const native = await createNodeFilter(weights, 2);
    expect(web.channels).toBe(native.channels);
    const random = createRandom(3);
    const [width, height] = [64, 48];
    const planes = Float32Array.from({ length: native.channels * width * height }, () => random());
    const a = await web.run(planes.slice(), height, width);
    const b = await native.run(planes.slice(), height, width);
    let largest = 0;
    for (let i = 0; i < b.length; i++) largest = Math.max(largest, Math.abs(a[i]! - b[i]!));
    expect(largest).toBeLessThan(1e-5);
    expect(b.some((v) => v > 0.1)).toBe(true);
  });
});
