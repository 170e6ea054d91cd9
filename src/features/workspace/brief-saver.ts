/**
 * Sends changes of briefs to the server in order, one request at a time. While one is under way only the newest change
 * of a picture waits, so a drag sends what the server can keep up with and ends on the true value. A step back that is
 * asked for meanwhile waits for its turn.
 */
import type { ChangedPictureDto, PictureDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { isStorageTrouble } from '../../core/result/storage-trouble';
import { type Sent, UNREACHABLE } from '../shared/send';

type Task = { id: string } & ({ brief: Brief; from: Brief; joins: boolean } | { by: -1 | 1 });

/** Nobody answered, or the data cannot be written now. */
const comesLater = ({ code = '' }: { code?: string }): boolean => code === UNREACHABLE || isStorageTrouble(code);

/** After so long without an answer the user is told that nothing is saved yet. */
const SLOW_MS = 1000;
const RETRY_MS = 2000;

export interface BriefPort {
  save(picture: string, brief: Brief, from: Brief, joins: boolean): Promise<Sent<ChangedPictureDto>>;
  step(picture: string, by: -1 | 1): Promise<Sent<PictureDto>>;
  /** The picture as the server has it, when nothing else waits. */
  onSaved(picture: PictureDto): void;
  /** Fields that another window had changed too, and that are as they were changed here. */
  onOverridden(labels: string[]): void;
  /** Whether a change has waited for an answer for more than a second. */
  onSlow(slow: boolean): void;
  /** Why the last request was refused; null when it was not. */
  onMessage(text: string | null): void;
  /** Everything was sent. */
  onIdle(): void;
}

export class BriefSaver {
  private readonly tasks: Task[] = [];
  private sending = false;
  private idle: Promise<void> = Promise.resolve();

  constructor(
    private readonly port: BriefPort,
    private readonly retryMs = RETRY_MS
  ) {}

  /** Whether something is under way. */
  get busy(): boolean {
    return this.sending;
  }

  /** Waits until the server has every change: what is asked for then is of the newest brief. */
  async settled(): Promise<void> {
    while (this.sending) await this.idle;
  }

  /** `from`: the brief that is changed. `joins`: the change goes on with the last one, as one step of the history. */
  change(id: string, brief: Brief, from: Brief, joins: boolean): void {
    const last = this.tasks.at(-1);
    // the newest change stands for those before it; a first one must not be lost to a later one that joins it
    if (last && 'brief' in last && last.id === id)
      this.tasks[this.tasks.length - 1] = { id, brief, from: last.from, joins: joins && last.joins };
    else this.tasks.push({ id, brief, from, joins });
    this.begin();
  }

  /** The page is left: what waits is sent at once, and its answers are for nobody. */
  leave(): void {
    for (const task of this.tasks.splice(0))
      if ('brief' in task) void this.port.save(task.id, task.brief, task.from, task.joins);
  }

  /** One step back (-1) or forward (1) in the history. */
  step(id: string, by: -1 | 1): void {
    this.tasks.push({ id, by });
    this.begin();
  }

  private begin(): void {
    if (!this.sending) this.idle = this.flush();
  }

  private async flush(): Promise<void> {
    this.sending = true;
    for (let task = this.tasks.shift(); task; task = this.tasks.shift()) {
      const sent = await this.untilAnswered(task);
      this.port.onMessage(sent.ok ? null : sent.message);
      if (sent.ok && 'overridden' in sent.value && sent.value.overridden.length > 0)
        this.port.onOverridden(sent.value.overridden);
      if (sent.ok && this.tasks.length === 0) this.port.onSaved(sent.value);
    }
    this.sending = false;
    this.port.onIdle();
  }

  /**
   * Sends a change again and again while nobody answers: it is not lost because the server was away. A step is sent once:
   * it may have been done though its answer was lost, and a second would be another step.
   */
  private async untilAnswered(task: Task): Promise<Sent<PictureDto | ChangedPictureDto>> {
    const slow = setTimeout(() => this.port.onSlow(true), SLOW_MS);
    try {
      for (;;) {
        const sent =
          'by' in task
            ? await this.port.step(task.id, task.by)
            : await this.port.save(task.id, task.brief, task.from, task.joins);
        if (sent.ok || 'by' in task || !comesLater(sent)) return sent;
        this.port.onSlow(true);
        await new Promise((resolve) => setTimeout(resolve, this.retryMs));
      }
    } finally {
      clearTimeout(slow);
      this.port.onSlow(false);
    }
  }
}
