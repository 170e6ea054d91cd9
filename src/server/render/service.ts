/**
 * The render service: a process of its own that claims proofs from the queue and renders them, one after another, until
 * told to end.
 */
import { randomUUID } from 'node:crypto';
import { setPriority } from 'node:os';
import { claimNext } from '../jobs/queue';
import { closeDatabase } from '../store/database';
import { runProof } from './run-proof';

const IDLE_MS = 400;
const owner = `${process.pid}-${randomUUID().slice(0, 8)}`;
let ending = false;
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    ending = true;
  });
// when whoever started this is gone, even by SIGKILL, nobody would ever end it: it ends itself at the next checkpoint
const parent = process.ppid;
setInterval(() => {
  if (process.ppid !== parent) ending = true;
}, 1000).unref();
// the desk and the workspace come first on a busy machine
try {
  setPriority(10);
} catch {
  // not allowed everywhere; rendering goes on at the usual priority
}

while (!ending) {
  const proof = claimNext(owner, Date.now());
  if (proof) await runProof(proof, owner, () => ending);
  else await new Promise((resolve) => setTimeout(resolve, IDLE_MS));
}
closeDatabase();
process.exit(0);
