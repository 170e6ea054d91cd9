'use client';
import { useEffect, useRef } from 'react';

/** Listens to a stream of server-sent events as long as the component lives; the browser reconnects by itself. */
export function useEvents<T>(path: string, onEvent: (value: T) => void): void {
  const handler = useRef(onEvent);
  handler.current = onEvent;
  useEffect(() => {
    const source = new EventSource(path);
    source.onmessage = (e) => handler.current(JSON.parse(e.data as string) as T);
    return () => source.close();
  }, [path]);
}
