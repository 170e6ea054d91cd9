'use client';
/** A word that brings a file in, and says how much of it is here while it comes. */
import { useRef, useState } from 'react';

interface Props {
  /** For who cannot see the word. */
  label: string;
  accept: string;
  word: string;
  /** Tells how far it is, 0 to 1. */
  onFile: (file: File, onShare: (share: number) => void) => Promise<void>;
}

export function BringIn({ label, accept, word, onFile }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [share, setShare] = useState<number | null>(null);
  return (
    <>
      <input
        ref={input}
        className="vh"
        type="file"
        accept={accept}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (!file) return;
          setShare(0);
          void onFile(file, setShare).finally(() => setShare(null));
        }}
      />
      <button type="button" className="lk act" onClick={() => input.current?.click()}>
        {share === null ? word : `${Math.floor(share * 100)}\u00a0% is here`}
      </button>
    </>
  );
}
