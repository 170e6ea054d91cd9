/**
 * One stream of changes for all tabs of a browser, which gives a server six connections at most. A visible tab that gets the
 * lock holds the stream and tells the others over a channel; when it is hidden or closed, another takes its place.
 */
type Stamps = Record<string, number>;

/** What of the browser it needs. */
export interface StreamPort {
  /** Opens the stream; returns what closes it. */
  open(onStamps: (stamps: Stamps) => void): () => void;
  /** Calls `lead` when this tab alone may hold the stream, until what it resolves to; `signal` withdraws the request. */
  lock(lead: () => Promise<void>, signal: AbortSignal): void;
  post(message: Message): void;
  /** Receives what other tabs post. */
  listen(receive: (message: Message) => void): void;
  isVisible(): boolean;
  onVisibility(changed: () => void): void;
}

type Message = { type: 'stamps'; stamps: Stamps } | { type: 'hello' };

export class ChangeStream {
  private readonly known = new Map<string, number>();
  private readonly listeners = new Map<string, Set<(stamp: number) => void>>();
  private request: AbortController | null = null;
  /** Set while this tab leads. */
  private resign: (() => void) | null = null;

  constructor(private readonly port: StreamPort) {
    port.listen((message) => {
      if (message.type === 'stamps') this.tell(message.stamps);
      // a tab that came later knows nothing yet
      else if (this.resign) port.post({ type: 'stamps', stamps: Object.fromEntries(this.known) });
    });
    port.onVisibility(() => this.leadOrResign());
  }

  /** Calls `changed` with the counter of a scope, a project's id or `desk`, at once when it is known, and when it grows. */
  subscribe(scope: string, changed: (stamp: number) => void): () => void {
    const of = this.listeners.get(scope) ?? new Set();
    this.listeners.set(scope, of);
    of.add(changed);
    const stamp = this.known.get(scope);
    if (stamp !== undefined) changed(stamp);
    this.leadOrResign();
    this.port.post({ type: 'hello' });
    return () => {
      of.delete(changed);
      if (of.size === 0) this.listeners.delete(scope);
      this.leadOrResign();
    };
  }

  private tell(stamps: Stamps): void {
    for (const [scope, stamp] of Object.entries(stamps)) {
      if (this.known.get(scope) === stamp) continue;
      this.known.set(scope, stamp);
      for (const changed of this.listeners.get(scope) ?? []) changed(stamp);
    }
  }

  private leadOrResign(): void {
    const wanted = this.port.isVisible() && this.listeners.size > 0;
    if (!wanted) {
      this.request?.abort();
      this.request = null;
      this.resign?.();
      return;
    }
    if (this.request) return;
    const request = new AbortController();
    this.request = request;
    this.port.lock(() => {
      if (request.signal.aborted) return Promise.resolve();
      const close = this.port.open((stamps) => {
        this.tell(stamps);
        this.port.post({ type: 'stamps', stamps });
      });
      return new Promise<void>((resolve) => {
        this.resign = () => {
          this.resign = null;
          close();
          resolve();
        };
      });
    }, request.signal);
  }
}

const NAME = 'sphaera-changes';

/** Over EventSource, Web Locks and BroadcastChannel. */
function browserPort(): StreamPort {
  const channel = new BroadcastChannel(NAME);
  return {
    open(onStamps) {
      const source = new EventSource('/api/events');
      source.onmessage = (event) => onStamps(JSON.parse(event.data) as Stamps);
      return () => source.close();
    },
    lock(lead, signal) {
      navigator.locks.request(NAME, { signal }, lead).catch((error: unknown) => {
        if ((error as Error).name !== 'AbortError') console.error(error);
      });
    },
    post: (message) => channel.postMessage(message),
    listen(receive) {
      channel.onmessage = (event) => receive(event.data as Message);
    },
    isVisible: () => document.visibilityState === 'visible',
    onVisibility: (changed) => document.addEventListener('visibilitychange', changed)
  };
}

let stream: ChangeStream | null = null;
/** Of this tab. */
export function changeStream(): ChangeStream {
  stream ??= new ChangeStream(browserPort());
  return stream;
}
