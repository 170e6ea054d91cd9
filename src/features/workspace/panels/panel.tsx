/** The one open panel: its title, its close button, its contents from the top. */
import { type ReactNode, useEffect, useRef } from 'react';

export function Panel({ title, onClose, children }: { title: string; onClose: () => void; children: ReactNode }) {
  const heading = useRef<HTMLHeadingElement>(null);
  // what was asked for is where a screen reader goes on
  useEffect(() => heading.current?.focus(), []);
  return (
    <aside className="panel" aria-label={title}>
      <header>
        <h2 ref={heading} tabIndex={-1}>
          {title}
        </h2>
        <button type="button" className="x" aria-label={`Close ${title}`} onClick={onClose}>
          <svg viewBox="0 0 11 11" aria-hidden="true">
            <path d="M1 1l9 9M10 1l-9 9" />
          </svg>
        </button>
      </header>
      {children}
    </aside>
  );
}
