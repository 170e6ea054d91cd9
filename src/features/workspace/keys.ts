/** What the keys of the workspace do. Letters and digits alone can be turned off, for those who speak or press by chance. */
import type { Zoom } from './zoom';

export interface KeyActions {
  /** Opens the panel of the brief with this number, from 1. */
  brief(number: number): void;
  keys(): void;
  /** Ends the innermost thing that is open. */
  escape(): void;
  render(): void;
  stop(): void;
  picture(by: -1 | 1): void;
  proof(by: -1 | 1): void;
  zoom(zoom: Zoom): void;
  model(): void;
  patch(): void;
  finish(): void;
  history(by: -1 | 1): void;
}

export interface Press {
  key: string;
  control: boolean;
  alt: boolean;
  shift: boolean;
  /** What has the focus: one types in a field, turns a control by keys of its own, or neither. */
  in: 'text' | 'control' | null;
}

/** Null: the key is none of ours, and the browser does with it what it does. */
export function actionOf(
  { key, control, alt, shift, in: within }: Press,
  singleKeys: boolean
): ((a: KeyActions) => void) | null {
  if (control) {
    if (key === 'Enter') return (a) => a.render();
    if (key === '.') return (a) => a.stop();
    if (key.toLowerCase() === 'z' && within !== 'text') return (a) => a.history(shift ? 1 : -1);
    return null;
  }
  // Alt with arrows is the browser's way back
  if (alt) return null;
  if (key === 'Escape') return (a) => a.escape();
  if (within !== null) return null;
  if (key === '?') return (a) => a.keys();
  return singleKeys ? (SINGLE[key] ?? (/^\d$/.test(key) ? (a) => a.brief(Number(key) || 10) : null)) : null;
}

const SINGLE: Record<string, (a: KeyActions) => void> = {
  '<': (a) => a.picture(-1),
  '>': (a) => a.picture(1),
  ',': (a) => a.proof(1),
  ';': (a) => a.proof(-1),
  w: (a) => a.zoom('whole'),
  t: (a) => a.zoom('true'),
  x: (a) => a.zoom('pixel'),
  m: (a) => a.model(),
  p: (a) => a.patch(),
  f: (a) => a.finish()
};

const CHOICES = new Set(['radio', 'checkbox', 'range', 'button', 'submit', 'file']);

/** What kind of thing has the focus. */
export function focusedIn(target: EventTarget | null): Press['in'] {
  const { tagName = '', type = '', isContentEditable = false } = (target ?? {}) as Partial<HTMLInputElement>;
  if (tagName === 'TEXTAREA' || isContentEditable || (tagName === 'INPUT' && !CHOICES.has(type))) return 'text';
  return tagName === 'SELECT' || (tagName === 'INPUT' && type === 'range') ? 'control' : null;
}
