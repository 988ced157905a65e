import type { CaseEvent } from '@true-ledger/contract';

/** What is heard: a case has grown, or the line was down and anything may have happened. */
export type Heard = CaseEvent | 'again';

const listeners = new Set<(heard: Heard) => void>();
const CHANNEL = 'true-ledger-live';
let started = false;
let end: (() => void) | null = null;

function tell(heard: Heard): void {
  for (const listener of listeners) listener(heard);
}

/**
 * One line to the server for all pages of a browser: a browser opens six connections to a host, and a line a page would use them up. The page that
 * holds the lock listens and passes on; when it goes, the next takes over. Without locks (a page that is not secure) each page has its own line.
 */
function start(): void {
  if (started) return;
  started = true;
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);
  if (channel) channel.onmessage = (message) => tell(message.data as Heard);
  const listen = (): EventSource => {
    const source = new EventSource('/api/events');
    const pass = (heard: Heard): void => {
      tell(heard);
      channel?.postMessage(heard);
    };
    source.onmessage = (message) => pass(JSON.parse(message.data as string) as CaseEvent);
    source.onopen = () => pass('again');
    return source;
  };
  const stop = new AbortController();
  let source: EventSource | null = null;
  let release: (() => void) | null = null;
  if (navigator.locks && channel)
    void navigator.locks
      .request(CHANNEL, { signal: stop.signal }, () => {
        source = listen();
        return new Promise<void>((resolve) => (release = resolve));
      })
      .catch(() => undefined);
  else source = listen();
  end = () => {
    stop.abort();
    source?.close();
    release?.();
    channel?.close();
    started = false;
  };
}

if (typeof window !== 'undefined') {
  // A page put away for "back" keeps its line otherwise, and six of those leave none.
  window.addEventListener('pagehide', () => end?.());
  window.addEventListener('pageshow', (e) => {
    if (e.persisted && listeners.size > 0) {
      start();
      tell('again');
    }
  });
}

/** Hears of every case until the returned function is called. */
export function hear(listener: (heard: Heard) => void): () => void {
  listeners.add(listener);
  start();
  return () => {
    listeners.delete(listener);
    if (listeners.size === 0) end?.();
  };
}
