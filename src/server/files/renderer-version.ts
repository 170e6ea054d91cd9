/** The version of the renderer that a film was made with: films of different versions are different pictures. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { config } from '../config';

/**
 * Raised by hand when something outside the kernel changes what a film holds: the sky, a light, the camera, the order of
 * work. The kernel itself is told by its bytes.
 */
const HOST_VERSION = 1;

let version: string | null = null;

export function rendererVersion(): string {
  version ??= `${HOST_VERSION} ${createHash('sha256')
    .update(readFileSync(config.built('kernel.wasm')))
    .digest('hex')}`;
  return version;
}
