/**
 * Directs the preview in a worker of its own, so that the page stays quick: takes orders, decides which is followed and
 * when, and hands pictures back. A newer order ends the work under way at its next tile.
 */
import { LearnedFilter } from './learned-filter';
import type { Order, PreviewJob, Report } from './messages';
import { SceneMemory } from './scene-memory';
import { type Sent, takePicture, warmUp } from './take-picture';

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<Order>) => void) | null;
  postMessage(message: Report, transfer?: Transferable[]): void;
};

// A change is followed when the hand has rested so long.
const REST_MS = 300;
// While light or material changes on and on, a look is given as often as this.
const STEADY_MS = 500;

interface Following {
  job: PreviewJob;
  began: number;
}

let threads = 1;
let wanted = null as Following | null;
let ready = null as PreviewJob | null;
let paused = false;
let lastLook = 0;
let wake: (() => void) | null = null;
const scene = new SceneMemory(() => threads);
const learned = new LearnedFilter(() => threads);

scope.onmessage = ({ data: order }) => {
  if (order.kind === 'threads') threads = order.threads;
  else if (order.kind === 'pause') paused = order.paused;
  else if (order.kind === 'get ready') ready = order.job;
  else wanted = order.job && { job: order.job, began: performance.now() };
  // a filter under way is in the way of whatever comes
  if (order.kind === 'show' || (order.kind === 'pause' && paused)) learned.cancel();
  wake?.();
};

const change = () =>
  new Promise<void>((resolve) => {
    wake = resolve;
  });

void (async () => {
  let followed: Following | null = null;
  for (;;) {
    const order = wanted;
    if (order && order !== followed && !paused) {
      followed = order;
      await follow(order).catch((error: unknown) => refuse(order.job, error));
    } else if (ready && !paused) {
      const job = ready;
      ready = null;
      // what is wrong is said when it is wanted
      await getReady(job).catch(() => {});
    } else await change();
  }
})();

/** Scene, threads and compiled code are there before they are wanted: code that has never run runs slowly at first. */
async function getReady(job: PreviewJob): Promise<void> {
  const setup = await scene.ask(job, true);
  await scene.load(setup);
  if (wanted === null) await warmUp({ job, setup, scene, halt: () => wanted !== null || paused });
}

function refuse(job: PreviewJob, error: unknown): void {
  const memory = error instanceof RangeError;
  if (memory) scene.drop();
  scope.postMessage({
    kind: 'refused',
    job: job.id,
    message: memory
      ? `it needs more memory than this browser gives (${error.message})`
      : error instanceof Error
        ? error.message
        : String(error)
  });
}

async function follow({ job }: Following): Promise<void> {
  const stale = () => wanted?.job !== job;
  const noLook = () => stale() && !standsForNewer(job);
  const setup = await scene.ask(job, false);
  if (noLook()) return;
  await takePicture({
    job,
    setup,
    scene,
    learned,
    halt: () => stale() || paused,
    haltLook: () => noLook() || paused,
    rests: () => comesToRest(job),
    async goesOn() {
      while (paused && !stale()) await change();
      return !stale();
    },
    threads: () => threads,
    send(picture: Sent) {
      lastLook = performance.now();
      scope.postMessage({ kind: 'picture', job: job.id, ...picture }, [picture.rgba]);
    }
  });
}

/**
 * While light or material changes on and on, an order is followed now and then though there are newer ones: what has
 * been asked for it is there.
 */
const standsForNewer = (job: PreviewJob) =>
  wanted?.job.frame === job.frame && !paused && performance.now() - lastLook > STEADY_MS;

/**
 * Waits until the hand has rested, or until there is a newer order that the look stands for; false when it stands for
 * none.
 */
async function comesToRest(job: PreviewJob): Promise<boolean> {
  for (;;) {
    if (wanted?.job.frame !== job.frame) return false;
    const left = wanted.began + REST_MS - performance.now();
    if (!paused && (wanted.job !== job || left <= 0)) return true;
    await Promise.race([change(), new Promise((resolve) => setTimeout(resolve, Math.max(left, 10)))]);
  }
}
