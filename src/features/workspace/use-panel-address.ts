'use client';
/**
 * The open panel is the end of the address, as `#size`: a page that is loaded again, or a link, opens it. It is no step of
 * the browser's history: Back goes to the picture before.
 */
import { useEffect, useRef } from 'react';

export function usePanelAddress<P extends string>(
  panel: P | null,
  isPanel: (text: string) => text is P,
  open: (panel: P) => void
): void {
  const first = useRef(true);
  const opens = useRef({ isPanel, open });
  opens.current = { isPanel, open };
  useEffect(() => {
    if (first.current) {
      first.current = false;
      const asked = decodeURIComponent(location.hash.slice(1));
      if (opens.current.isPanel(asked)) opens.current.open(asked);
      if (asked !== '') return;
    }
    const { pathname, search, hash } = location;
    const end = panel === null ? '' : `#${panel}`;
    if (hash !== end) window.history.replaceState(window.history.state, '', pathname + search + end);
  }, [panel]);
}
