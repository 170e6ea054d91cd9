'use client';
/** Light, dark, or as the system has it; kept in this browser. */
import { useSyncExternalStore } from 'react';
import { Words } from './words';

const PLACE = 'sphaera.theme';
const CHANGED = 'sphaera-theme';
const THEMES = { light: 'paper', dark: 'dusk' } as const;
type Choice = 'system' | keyof typeof THEMES;

/** In the page's head, so that no page is seen in the other theme first. */
export const APPLY_THEME = `(function () {
  try {
    var t = ${JSON.stringify(THEMES)}[localStorage.getItem('${PLACE}')];
    if (t) document.documentElement.dataset.theme = t;
  } catch (e) {}
})();`;

function chosen(): Choice {
  const saved = localStorage.getItem(PLACE);
  return saved === 'light' || saved === 'dark' ? saved : 'system';
}

function choose(choice: Choice): void {
  localStorage.setItem(PLACE, choice);
  if (choice === 'system') delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = THEMES[choice];
  dispatchEvent(new Event(CHANGED));
}

export function ThemeSwitch() {
  const choice = useSyncExternalStore<Choice>(
    (changed) => {
      addEventListener(CHANGED, changed);
      return () => removeEventListener(CHANGED, changed);
    },
    chosen,
    () => 'system'
  );
  return (
    <Words
      label="Appearance"
      value={choice}
      options={[
        { key: 'system', label: 'As the system' },
        { key: 'light', label: 'Light' },
        { key: 'dark', label: 'Dark' }
      ]}
      onChoose={choose}
    />
  );
}
