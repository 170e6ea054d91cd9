/** The compiled kernel, read once a process. */
import { readFile } from 'node:fs/promises';
import { config } from '../config';

let module: Promise<WebAssembly.Module> | null = null;
export function loadKernel(): Promise<WebAssembly.Module> {
  module ??= readFile(config.built('kernel.wasm')).then((bytes) => WebAssembly.compile(bytes));
  return module;
}
