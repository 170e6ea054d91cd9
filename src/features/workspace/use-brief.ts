'use client';
/** The brief of the picture in hand: shown changed at once, saved at once (brief-saver.ts). */
import { useEffect, useRef, useState } from 'react';
import type { PictureDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { send } from '../shared/send';
import { BriefSaver } from './brief-saver';
import { WORKSPACE_COPY } from './copy';

/** A change is saved at once, or the server is away. */
const ANSWER_MS = 10_000;

export type ChangeBrief = (part: Partial<Brief>, joins?: boolean) => void;

export function useBrief(
  picture: PictureDto,
  onSaved: (picture: PictureDto) => void,
  onMessage: (text: string | null) => void,
  onSlow: (slow: boolean) => void
): { brief: Brief; change: ChangeBrief; history: (by: -1 | 1) => void; settled: () => Promise<void> } {
  const [draft, setDraft] = useState<{ id: string; brief: Brief } | null>(null);
  const brief = draft?.id === picture.id ? draft.brief : picture.brief;
  const latest = useRef(brief);
  latest.current = brief;
  const on = useRef({ onSaved, onMessage, onSlow });
  on.current = { onSaved, onMessage, onSlow };
  const [saver] = useState(
    () =>
      new BriefSaver({
        save: (id, next, from, joins) =>
          send('PUT', `/api/pictures/${id}/brief`, { brief: next, from, joins }, ANSWER_MS),
        step: (id, by) => send('POST', `/api/pictures/${id}/history`, { by }),
        onSaved: (saved) => on.current.onSaved(saved),
        onMessage: (text) => on.current.onMessage(text),
        onOverridden: (labels) => on.current.onMessage(WORKSPACE_COPY.overridden(labels)),
        onSlow: (slow) => on.current.onSlow(slow),
        onIdle: () => setDraft(null)
      })
  );

  const change: ChangeBrief = (part, joins = false) => {
    const from = latest.current;
    const next = { ...from, ...part };
    latest.current = next;
    setDraft({ id: picture.id, brief: next });
    saver.change(picture.id, next, from, joins);
  };

  // a page that is left with a change on its way asks first, and sends what waits if it is closed all the same
  useEffect(() => {
    const guard = (event: BeforeUnloadEvent) => {
      if (saver.busy) event.preventDefault();
    };
    const leave = () => saver.leave();
    addEventListener('beforeunload', guard);
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('beforeunload', guard);
      removeEventListener('pagehide', leave);
    };
  }, [saver]);

  return { brief, change, history: (by) => saver.step(picture.id, by), settled: () => saver.settled() };
}
