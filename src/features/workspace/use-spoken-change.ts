'use client';
/** What is spoken of a change of the brief, once it has rested; nothing of the brief that a page begins with. */
import { useEffect, useRef, useState } from 'react';
import type { SentencePart } from '../../core/brief/sentence';
import { newWords, spokenChange } from './spoken';

// A drag is one change.
const RESTS_MS = 900;

/** `forecast`: of the brief as it stands; null while it is not known. */
export function useSpokenChange(
  picture: string,
  sentence: readonly SentencePart[],
  forecast: string | null
): { spoken: string; onStep: (by: -1 | 1) => void } {
  const told = useRef({ picture, sentence, forecast });
  const step = useRef<-1 | 1 | null>(null);
  const [spoken, setSpoken] = useState('');
  const text = JSON.stringify(sentence);
  const now = useRef({ picture, sentence, forecast });
  now.current = { picture, sentence, forecast };
  useEffect(() => {
    const rest = setTimeout(() => {
      const { current } = now;
      const before = told.current;
      told.current = { ...current, forecast: current.forecast ?? before.forecast };
      // of another picture all is new, and its name has been said
      if (before.picture !== current.picture) return;
      const words = newWords(before.sentence, current.sentence);
      const changed = before.forecast !== null && current.forecast !== before.forecast ? current.forecast : null;
      if (words.length > 0 || changed !== null || step.current !== null)
        setSpoken(spokenChange(words, step.current, changed));
      step.current = null;
    }, RESTS_MS);
    return () => clearTimeout(rest);
  }, [picture, text, forecast]);
  return {
    spoken,
    onStep: (by) => {
      step.current = by;
    }
  };
}
