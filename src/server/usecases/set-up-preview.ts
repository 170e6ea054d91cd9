/**
 * What the browser needs to render a brief by itself: asked of a process that stays, so that the web server never waits
 * in computation.
 */
import { join } from 'node:path';
import { parseBrief } from '../../contracts/brief';
import type { PreviewBody } from '../../contracts/requests';
import { config } from '../config';
import { type OpenTask, openTask } from '../jobs/run-task';
import { singleton } from '../jobs/singleton';
import type { TaskInput } from '../jobs/tasks';
import { latestRevision } from '../store/projects';
import { type Result, refused } from '../../core/result/result';
import { previewComesFirst } from './preview-first';
import { missingImage } from './sent-brief';

const IDLE_MS = 10 * 60_000;

/** The process that stays, and how many answers it owes. */
interface Helper {
  task: OpenTask<'setup'> | null;
  asked: number;
  idle: ReturnType<typeof setTimeout> | undefined;
}

const helper = () => singleton('setup helper', (): Helper => ({ task: null, asked: 0, idle: undefined }));

async function ask(request: TaskInput<'setup'>): Promise<Result<Uint8Array>> {
  const own = helper();
  clearTimeout(own.idle);
  if (!own.task || own.task.ended) own.task = openTask('setup');
  const { task } = own;
  own.asked++;
  const reply = await task.ask(request);
  own.asked--;
  if (own.asked === 0) {
    // it holds models in memory; nobody has asked for a while
    own.idle = setTimeout(() => {
      own.task = null;
      void task.close();
    }, IDLE_MS);
    own.idle.unref();
  }
  return reply;
}

export async function setUpPreview(projectId: string, question: PreviewBody): Promise<Result<Uint8Array>> {
  const revision = latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const parsed = parseBrief(question.brief);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  const brief = parsed.value;
  const missing = missingImage(brief);
  if (missing) return missing;
  previewComesFirst();
  return ask({
    model: revision.glb_sha256,
    brief,
    width: question.width,
    height: question.height,
    pack: question.pack,
    rig: question.rig,
    light: question.light,
    exact: question.exact
  });
}

const RUNTIME_FILES = ['ort.wasm.min.mjs', 'ort-wasm-simd-threaded.mjs', 'ort-wasm-simd-threaded.wasm'];

export function filterFile(name: string): string | null {
  if (RUNTIME_FILES.includes(name))
    return join(/* turbopackIgnore: true */ config.root, 'node_modules/onnxruntime-web/dist', name);
  return name === 'small.weights' ? config.weights('small') : null;
}
