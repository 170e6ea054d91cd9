'use client';
/**
 * The brief of the picture in hand: shown changed at once, saved at once. One request is under way at a time; while it is, only the
 * newest change waits, so a drag sends what the server can keep up with and ends on the true value.
 */
import { type RefObject, useEffect, useRef, useState } from 'react';
import type { PictureDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { send } from '../shared/send';

export type ChangeBrief = (part: Partial<Brief>, joins?: boolean) => void;

export function useBrief(picture: PictureDto, onSaved: (picture: PictureDto) => void, onMessage: (text: string | null) => void): { brief: Brief; change: ChangeBrief; history: (by: -1 | 1) => void; busy: RefObject<boolean> } {
  const [draft, setDraft] = useState<{ id: string; brief: Brief } | null>(null);
  const waiting = useRef<{ id: string; brief: Brief; joins: boolean } | null>(null);
  const busy = useRef(false);
  const brief = draft?.id === picture.id ? draft.brief : picture.brief;
  const latest = useRef(brief);
  latest.current = brief;

  const flush = async () => {
    if (busy.current) return;
    busy.current = true;
    while (waiting.current) {
      const { id, brief: next, joins } = waiting.current;
      waiting.current = null;
      const sent = await send<PictureDto>('PUT', `/api/pictures/${id}/brief`, { brief: next, joins });
      if (sent.ok) {
        onMessage(null);
        if (!waiting.current) onSaved(sent.value);
      } else onMessage(sent.message);
    }
    busy.current = false;
    setDraft(null);
  };

  const change: ChangeBrief = (part, joins = false) => {
    const next = { ...latest.current, ...part };
    latest.current = next;
    setDraft({ id: picture.id, brief: next });
    // a first change must not be lost to a later one that joins it
    waiting.current = { id: picture.id, brief: next, joins: joins && (waiting.current?.joins ?? true) };
    void flush();
  };

  const history = (by: -1 | 1) => {
    if (busy.current) return;
    void send<PictureDto>('POST', `/api/pictures/${picture.id}/history`, { by }).then((sent) => (sent.ok ? onSaved(sent.value) : onMessage(sent.message)));
  };

  // a page that is left with a change on its way waits for it
  useEffect(() => {
    const guard = (event: BeforeUnloadEvent) => {
      if (busy.current) event.preventDefault();
    };
    addEventListener('beforeunload', guard);
    return () => removeEventListener('beforeunload', guard);
  }, []);

  return { brief, change, history, busy };
}
