'use client';
/** The workspace's keys; none acts while one types in a field. */
import { useEffect, useRef } from 'react';
import type { Zoom } from './stage';

export interface KeyActions {
  /** Opens the panel of the brief with this number, from 1. */
  brief(number: number): void;
  panel(key: 'keys' | null): void;
  render(): void;
  stop(): void;
  picture(by: -1 | 1): void;
  proof(by: -1 | 1): void;
  zoom(zoom: Zoom): void;
  model(): void;
  patch(): void;
  history(by: -1 | 1): void;
}

export function useKeys(actions: KeyActions): void {
  const current = useRef(actions);
  current.current = actions;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const a = current.current;
      const target = event.target as HTMLElement;
      const typing = /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName) && (target as HTMLInputElement).type !== 'radio';
      const take = (action: () => void) => {
        event.preventDefault();
        action();
      };
      if (event.ctrlKey || event.metaKey) {
        if (event.key === 'Enter') take(a.render);
        else if (event.key === '.') take(a.stop);
        else if (event.key.toLowerCase() === 'z' && !typing) take(() => a.history(event.shiftKey ? 1 : -1));
        return;
      }
      if (event.altKey) {
        if (event.key === 'ArrowLeft') take(() => a.picture(-1));
        else if (event.key === 'ArrowRight') take(() => a.picture(1));
        return;
      }
      if (event.key === 'Escape') return a.panel(null);
      if (typing) return;
      if (/^[1-9]$/.test(event.key)) a.brief(Number(event.key));
      else if (event.key === ',') a.proof(1);
      else if (event.key === ';') a.proof(-1);
      else if (event.key === 'w') a.zoom('whole');
      else if (event.key === 't') a.zoom('true');
      else if (event.key === 'x') a.zoom('pixel');
      else if (event.key === 'm') a.model();
      else if (event.key === 'p') a.patch();
      else if (event.key === '?') a.panel('keys');
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
}
