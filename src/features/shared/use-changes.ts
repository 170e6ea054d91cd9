'use client';
import { useEffect, useRef } from 'react';
import { changeStream } from './change-stream';

/**
 * Listens for changes of a scope, a project's id or `desk`, as long as the component lives. The server tells a number that
 * grows with every change; what changed since the number that was seen last is then fetched, one request after the other.
 */
export function useChanges<T extends { stamp: number }>(
  scope: string,
  changesSince: (stamp: number) => string,
  initial: number,
  /** False when the changes are of no use, for what was asked for is no longer wanted: they are asked for anew. */
  onChange: (changes: T) => unknown
): void {
  const handler = useRef(onChange);
  handler.current = onChange;
  const address = useRef(changesSince);
  address.current = changesSince;
  const seen = useRef(initial);
  useEffect(() => {
    let busy = false;
    let newest = 0;
    let left = false;
    const fetchChanges = async () => {
      if (busy) return;
      busy = true;
      while (!left && newest > seen.current) {
        const before = seen.current;
        const answer = await fetch(address.current(before)).catch(() => null);
        if (!answer?.ok) break; // asked again at the next change
        const changes = (await answer.json()) as T;
        if (left) break;
        if (handler.current(changes) !== false) seen.current = changes.stamp;
      }
      busy = false;
    };
    const leave = changeStream().subscribe(scope, (stamp) => {
      newest = stamp;
      void fetchChanges();
    });
    return () => {
      left = true;
      leave();
    };
  }, [scope]);
}
