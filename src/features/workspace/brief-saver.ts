/**
 * Sends changes of briefs to the server in order, one request at a time. While one is under way only the newest change
 * of a picture waits, so a drag sends what the server can keep up with and ends on the true value. A step back that is
 * asked for meanwhile waits for its turn.
 */
import type { PictureDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import type { Sent } from '../shared/send';

type Task = { id: string } & ({ brief: Brief; joins: boolean } | { by: -1 | 1 });

export interface BriefPort {
  save(picture: string, brief: Brief, joins: boolean): Promise<Sent<PictureDto>>;
  step(picture: string, by: -1 | 1): Promise<Sent<PictureDto>>;
  /** The picture as the server has it, when nothing else waits. */
  onSaved(picture: PictureDto): void;
  /** Why the last request was refused; null when it was not. */
  onMessage(text: string | null): void;
  /** Everything was sent. */
  onIdle(): void;
}

export class BriefSaver {
  private readonly tasks: Task[] = [];
  private sending = false;
  private idle: Promise<void> = Promise.resolve();

  constructor(private readonly port: BriefPort) {}

  /** Whether something is under way. */
  get busy(): boolean {
    return this.sending;
  }

  /** Waits until the server has every change: what is asked for then is of the newest brief. */
  async settled(): Promise<void> {
    while (this.sending) await this.idle;
  }

  /** `joins`: the change goes on with the last one, as one step of the history. */
  change(id: string, brief: Brief, joins: boolean): void {
    const last = this.tasks.at(-1);
    // the newest change stands for those before it; a first one must not be lost to a later one that joins it
    if (last && 'brief' in last && last.id === id)
      this.tasks[this.tasks.length - 1] = { id, brief, joins: joins && last.joins };
    else this.tasks.push({ id, brief, joins });
    this.begin();
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
      const sent =
        'by' in task ? await this.port.step(task.id, task.by) : await this.port.save(task.id, task.brief, task.joins);
      this.port.onMessage(sent.ok ? null : sent.message);
      if (sent.ok && this.tasks.length === 0) this.port.onSaved(sent.value);
    }
    this.sending = false;
    this.port.onIdle();
  }
}
