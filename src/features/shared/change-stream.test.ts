import { describe, expect, it } from 'vitest';
import { ChangeStream, type StreamPort } from './change-stream';

/** A browser with some tabs: one lock, one channel, and a server that counts its streams. */
function browser() {
  const tabs: Tab[] = [];
  const queue: { tab: Tab; lead: () => Promise<void>; signal: AbortSignal }[] = [];
  const open = new Map<Tab, (stamps: Record<string, number>) => void>();
  let held = false;
  class Tab {
    visible = true;
    receive: (message: never) => void = () => {};
    changed = () => {};
    stream: ChangeStream;
    constructor() {
      const port: StreamPort = {
        open: (onStamps) => {
          open.set(this, onStamps);
          return () => open.delete(this);
        },
        lock: (lead, signal) => {
          queue.push({ tab: this, lead, signal });
          void grant();
        },
        post: (message) => {
          for (const tab of tabs) if (tab !== this) tab.receive(message as never);
        },
        listen: (receive) => {
          this.receive = receive as never;
        },
        isVisible: () => this.visible,
        onVisibility: (changed) => {
          this.changed = changed;
        }
      };
      this.stream = new ChangeStream(port);
      tabs.push(this);
    }
    show(visible: boolean) {
      this.visible = visible;
      this.changed();
    }
  }
  async function grant(): Promise<void> {
    if (held) return;
    const next = queue.shift();
    if (!next) return;
    if (next.signal.aborted) return grant();
    held = true;
    await next.lead();
    held = false;
    await grant();
  }
  const settle = () => new Promise((resolve) => setTimeout(resolve));
  const server = async (stamps: Record<string, number>) => {
    for (const tell of open.values()) tell(stamps);
    await settle();
  };
  return { tab: () => new Tab(), open, server, settle };
}

describe('the stream of changes', () => {
  it('is one for eight tabs, and tells each what it asked for', async () => {
    const { tab, open, server } = browser();
    const told: string[] = [];
    for (let i = 0; i < 8; i++) tab().stream.subscribe(i % 2 ? 'desk' : 'pier', (stamp) => told.push(`${i}: ${stamp}`));
    expect(open.size).toBe(1);
    await server({ desk: 4, pier: 9, other: 2 });
    expect(told.sort()).toEqual(['0: 9', '1: 4', '2: 9', '3: 4', '4: 9', '5: 4', '6: 9', '7: 4']);
  });

  it('goes to another tab when the one that holds it is hidden, and closes when all are', async () => {
    const { tab, open, server, settle } = browser();
    const [a, b] = [tab(), tab()];
    const told: number[] = [];
    a.stream.subscribe('desk', () => {});
    b.stream.subscribe('desk', (stamp) => told.push(stamp));
    a.show(false);
    await settle();
    expect([...open.keys()]).toEqual([b]);
    await server({ desk: 5 });
    expect(told).toEqual([5]);
    b.show(false);
    await settle();
    expect(open.size).toBe(0);
    a.show(true);
    await settle();
    expect([...open.keys()]).toEqual([a]);
  });

  it('tells a tab that comes later what is known, and nothing twice', async () => {
    const { tab, server } = browser();
    const first = tab();
    first.stream.subscribe('desk', () => {});
    await server({ desk: 4 });
    const told: number[] = [];
    tab().stream.subscribe('desk', (stamp) => told.push(stamp));
    expect(told).toEqual([4]);
    await server({ desk: 4 });
    await server({ desk: 6 });
    expect(told).toEqual([4, 6]);
  });

  it('closes when nobody listens any more', async () => {
    const { tab, open, settle } = browser();
    const leave = tab().stream.subscribe('desk', () => {});
    expect(open.size).toBe(1);
    leave();
    await settle();
    expect(open.size).toBe(0);
  });
});
