/** What goes between a task's process and the process that started it, over Node's channel with structured clones. */
import type { StopMode } from '../../core/job/job';

/** To the task. `release`: end in order and leave the rest to be done later. */
export type TaskOrder =
  | { type: 'request'; id: number; input: unknown }
  | { type: 'pause'; paused: boolean }
  | { type: 'stop'; mode: StopMode | 'release' };

/** From the task. `refused` is an expected refusal, `fault` an error of our own. */
export type TaskReport =
  | { type: 'progress'; id: number; progress: unknown }
  | { type: 'result'; id: number; result: unknown }
  | { type: 'refused'; id: number; code: string; message: string }
  | { type: 'fault'; id: number; message: string };
