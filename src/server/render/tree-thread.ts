/** One thread that helps to build a large tree; started by node-threads.ts. */
import { workerData } from 'node:worker_threads';
import { buildParts, type PartsJob } from '../../kernel/host/tree-parts';

const { job, thread } = workerData as { job: PartsJob; thread: number };
buildParts(job, thread);
