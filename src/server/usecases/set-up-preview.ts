/**
 * What the browser needs to render a brief by itself: asked of a process that stays, so that the web server never waits
 * in computation.
 */
import { type ChildProcess, spawn } from 'node:child_process';
import { join } from 'node:path';
import { parseBrief } from '../../contracts/brief';
import { config } from '../config';
import type { SetupReply, SetupRequest } from '../render/setup-worker';
import { latestRevision } from '../store/projects';
import { done, type Outcome, refused } from './identify';
import { previewComesFirst } from './preview-first';
import { missingImage } from './sent-brief';

const MOST_PX = 4096;
const IDLE_MS = 10 * 60_000;

interface Helper {
  child: ChildProcess;
  waiting: Map<number, (reply: SetupReply) => void>;
  idle: ReturnType<typeof setTimeout> | undefined;
}

// modules may be loaded more than once by the web server; the process is one
const place = globalThis as typeof globalThis & { sphaeraSetup?: Helper };
let lastId = 0;

function helper(): Helper {
  if (place.sphaeraSetup) return place.sphaeraSetup;
  const child = spawn(process.execPath, ['--enable-source-maps', config.built('setup-worker.mjs')], {
    cwd: config.root,
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    serialization: 'advanced',
    env: {
      ...config.childEnvironment,
      SPHAERA_DATA: config.dataDir,
      SPHAERA_MAX_PACK_BYTES: String(config.maxPackBytes)
    }
  });
  const made: Helper = { child, waiting: new Map(), idle: undefined };
  child.on('message', (reply: SetupReply) => {
    made.waiting.get(reply.id)?.(reply);
    made.waiting.delete(reply.id);
  });
  const end = () => {
    if (place.sphaeraSetup === made) place.sphaeraSetup = undefined;
    for (const [id, answer] of made.waiting)
      answer({ id, ok: false, message: 'the helper process ended', fault: true });
    made.waiting.clear();
  };
  child.on('exit', end);
  child.on('error', end);
  place.sphaeraSetup = made;
  return made;
}

export interface PreviewQuestion {
  brief: unknown;
  width: unknown;
  height: unknown;
  pack: unknown;
  light: unknown;
  rig: unknown;
  exact: unknown;
}

const text = (value: unknown, most: number) => (typeof value === 'string' && value.length <= most ? value : null);
const pixels = (value: unknown) =>
  typeof value === 'number' && Number.isInteger(value) && value >= 1 && value <= MOST_PX ? value : null;

export async function setUpPreview(projectId: string, question: PreviewQuestion): Promise<Outcome<Uint8Array>> {
  const revision = latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const parsed = parseBrief(question.brief);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  const brief = parsed.value;
  const width = pixels(question.width);
  const height = pixels(question.height);
  if (width === null || height === null)
    return refused(`width and height are whole numbers from 1 to ${MOST_PX}`, 'bad_input');
  const missing = missingImage(brief);
  if (missing) return missing;
  previewComesFirst();
  const worker = helper();
  const request: SetupRequest = {
    id: ++lastId,
    model: revision.glb_sha256,
    brief,
    width,
    height,
    pack: text(question.pack, 64),
    rig: text(question.rig, 64),
    light: text(question.light, 1000),
    exact: question.exact === true
  };
  clearTimeout(worker.idle);
  const reply = await new Promise<SetupReply>((resolve) => {
    worker.waiting.set(request.id, resolve);
    worker.child.send(request);
  });
  if (worker.waiting.size === 0) {
    // it holds models in memory; nobody has asked for a while
    worker.idle = setTimeout(() => {
      place.sphaeraSetup = undefined;
      worker.child.disconnect();
    }, IDLE_MS);
    worker.idle.unref();
  }
  return reply.ok ? done(reply.bytes) : refused(reply.message, reply.fault ? 'fault' : 'refused');
}

const RUNTIME_FILES = ['ort.wasm.min.mjs', 'ort-wasm-simd-threaded.mjs', 'ort-wasm-simd-threaded.wasm'];

export function filterFile(name: string): string | null {
  if (RUNTIME_FILES.includes(name))
    return join(/* turbopackIgnore: true */ config.root, 'node_modules/onnxruntime-web/dist', name);
  return name === 'small.weights' ? config.weights('small') : null;
}
