'use client';
/** Listens for the workspace's keys (keys.ts). Whether single keys act is kept in the browser. */
import { useEffect, useRef, useSyncExternalStore } from 'react';
import { actionOf, focusedIn, type KeyActions } from './keys';

const PLACE = 'sphaera.single-keys';
const CHANGED = 'sphaera-single-keys';

const areOn = (): boolean => localStorage.getItem(PLACE) !== 'off';

export function useSingleKeys(): [on: boolean, set: (on: boolean) => void] {
  const on = useSyncExternalStore(
    (changed) => {
      addEventListener(CHANGED, changed);
      return () => removeEventListener(CHANGED, changed);
    },
    areOn,
    () => true
  );
  return [
    on,
    (next) => {
      localStorage.setItem(PLACE, next ? 'on' : 'off');
      dispatchEvent(new Event(CHANGED));
    }
  ];
}

export function useKeys(actions: KeyActions): void {
  const current = useRef(actions);
  current.current = actions;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const act = actionOf(
        {
          key: event.key,
          control: event.ctrlKey || event.metaKey,
          alt: event.altKey,
          shift: event.shiftKey,
          in: focusedIn(event.target)
        },
        areOn()
      );
      if (!act) return;
      event.preventDefault();
      act(current.current);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
}
