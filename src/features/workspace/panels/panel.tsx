/** The one open panel: its title, its close button, its contents from the top. */
import { type ReactNode, useEffect, useRef } from 'react';

interface Props {
  /** Of the address of the word that opens it. */
  name: string;
  title: string;
  onClose: () => void;
  children: ReactNode;
}

export function Panel({ name, title, onClose, children }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    const opener = document.activeElement;
    // what was asked for is where a screen reader goes on
    heading.current?.focus();
    // and what it was opened by is where one goes on when it is closed
    return () => {
      requestAnimationFrame(() => {
        if (document.activeElement !== document.body) return;
        const back = opener instanceof HTMLElement && opener !== document.body && opener.isConnected ? opener : null;
        (back ?? document.querySelector<HTMLElement>(`.brief a[href="#${name}"]`))?.focus();
      });
    };
  }, [name]);
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
