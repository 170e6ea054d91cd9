'use client';
/**
 * A page can be seen before it has come to life, and what is pressed then would be lost, or would be followed as a
 * plain link. A script in the page's head keeps presses and chosen files until the screen says that it lives, and then
 * gives them to it. Every screen with something to press says so. `html[data-alive]` tells it to the browser's tests.
 */
import { useEffect } from 'react';

declare global {
  interface Window {
    earlyPresses?: { end: () => void };
  }
}

export const KEEP_EARLY_PRESSES = `(function () {
  var kept = [];
  function press(e) {
    var t = e.target.closest && e.target.closest('button, label, [role=button]');
    if (!t || !e.isTrusted || t.querySelector('input[type=file]')) return;
    e.preventDefault();
    e.stopPropagation();
    kept.push(function () { t.click(); });
  }
  function choice(e) {
    if (e.target.type !== 'file') return;
    e.stopPropagation();
    kept.push(function () { e.target.dispatchEvent(new Event('change', { bubbles: true })); });
  }
  addEventListener('click', press, true);
  addEventListener('change', choice, true);
  window.earlyPresses = { end: function () {
    removeEventListener('click', press, true);
    removeEventListener('change', choice, true);
    document.documentElement.dataset.alive = '';
    kept.splice(0).forEach(function (give) { give(); });
  } };
})();`;

/** For a screen's outermost component. */
export function useAlive(): void {
  useEffect(() => {
    window.earlyPresses?.end();
    window.earlyPresses = undefined;
  }, []);
}
