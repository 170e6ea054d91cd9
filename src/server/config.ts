/** The only reader of the environment. Paths are absolute; nothing here is secret. */
import { availableParallelism } from 'node:os';
import { join, resolve } from 'node:path';

const root = resolve(/* turbopackIgnore: true */ process.env.SPHAERA_ROOT ?? process.cwd());

export const config = {
  root,
  /** Everything that is kept: copy it and it works elsewhere. */
  dataDir: resolve(/* turbopackIgnore: true */ process.env.SPHAERA_DATA ?? join(root, 'data')),
  /** Whose model files projects may follow; null for none. */
  watchFolder: process.env.SPHAERA_WATCH ? resolve(/* turbopackIgnore: true */ process.env.SPHAERA_WATCH) : null,
  /** A module built by scripts/build.mjs. */
  built: (name: string) => join(root, 'build', name),
  /** Pictures of the library's surroundings, made at build. */
  libraryPreview: (key: string) => join(root, 'build', 'library', `${key}.png`),
  /** What scripts/weights.mjs fetches; may be missing. `small`: of the filter that browsers run. */
  weights: (of: 'filter' | 'reflectance' | 'normal' | 'small') => join(root, 'build', 'denoise', `${of}.weights`),
  /** Scene packs are kept up to this much, those used last. */
  maxPackBytes: Number(process.env.SPHAERA_MAX_PACK_BYTES ?? 0) || 2 * 2 ** 30,
  /** With less room on the disk nothing new begins: files to hand over, packs and the database need some. */
  spareBytes: Number(process.env.SPHAERA_SPARE_BYTES ?? 0) || 2e8,
  /** How long a write waits for another process to end its own. The web server waits without holding up its pages. */
  lockPatienceMs: process.env.NEXT_RUNTIME === 'nodejs' ? 200 : 10_000,
  threads: Number(process.env.SPHAERA_THREADS ?? 0) || availableParallelism(),
  /** Largest upload, and the largest total after unpacking. */
  maxUploadBytes: Number(process.env.SPHAERA_MAX_UPLOAD_BYTES ?? 0) || 2 * 2 ** 30,
  maxUnpackedBytes: 4 * 2 ** 30,
  importTimeoutMs: Number(process.env.SPHAERA_IMPORT_TIMEOUT_MS ?? 0) || 180_000,
  importMemoryMb: 6144,
  /** What a child process gets to see of the environment. */
  childEnvironment: { NODE_ENV: 'production', PATH: process.env.PATH ?? '', SPHAERA_ROOT: root } as NodeJS.ProcessEnv,
  /** Process that started this one, even if it was killed before this one began. */
  starter: Number(process.env.SPHAERA_STARTER ?? 0) || process.ppid,
  port: Number(process.env.PORT ?? 4300)
} as const;
