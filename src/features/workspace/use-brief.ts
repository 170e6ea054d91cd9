'use client';
/**
 * The brief of the picture in hand: shown changed at once, saved at once. One request is under way at a time; while it
 * is, only the newest change waits, so a drag sends what the server can keep up with and ends on the true value. A step
 * back asked for meanwhile waits for its turn.
 */
import { useEffect, useRef, useState } from 'react';
import type { PictureDto } from '../../contracts/dto';
import type { Brief } from '../../core/brief/brief';
import { send } from '../shared/send';

export type ChangeBrief = (part: Partial<Brief>, joins?: boolean) => void;

type Task = { id: string } & ({ brief: Brief; joins: boolean } | { by: -1 | 1 });

export function useBrief(
  picture: PictureDto,
  onSaved: (picture: PictureDto) => void,
  onMessage: (text: string | null) => void
): { brief: Brief; change: ChangeBrief; history: (by: -1 | 1) => void } {
  const [draft, setDraft] = useState<{ id: string; brief: Brief } | null>(null);
  // what is still to be sent, in order
  const tasks = useRef<Task[]>([]);
  const busy = useRef(false);
  const brief = draft?.id === picture.id ? draft.brief : picture.brief;
  const latest = useRef(brief);
  latest.current = brief;

  const flush = async () => {
    if (busy.current) return;
    busy.current = true;
    for (let task = tasks.current.shift(); task; task = tasks.current.shift()) {
      const sent =
        'by' in task
          ? await send<PictureDto>('POST', `/api/pictures/${task.id}/history`, { by: task.by })
          : await send<PictureDto>('PUT', `/api/pictures/${task.id}/brief`, { brief: task.brief, joins: task.joins });
      onMessage(sent.ok ? null : sent.message);
      if (sent.ok && tasks.current.length === 0) onSaved(sent.value);
    }
    busy.current = false;
    setDraft(null);
  };

  const change: ChangeBrief = (part, joins = false) => {
    const { id } = picture;
    const next = { ...latest.current, ...part };
    latest.current = next;
    setDraft({ id, brief: next });
    const last = tasks.current.at(-1);
    // the newest change stands for those before it; a first one must not be lost to a later one that joins it
    if (last && 'brief' in last && last.id === id)
      tasks.current[tasks.current.length - 1] = { id, brief: next, joins: joins && last.joins };
    else tasks.current.push({ id, brief: next, joins });
    void flush();
  };

  const history = (by: -1 | 1) => {
    tasks.current.push({ id: picture.id, by });
    void flush();
  };

  // a page that is left with a change on its way waits for it
  useEffect(() => {
    const guard = (event: BeforeUnloadEvent) => {
      if (busy.current) event.preventDefault();
    };
    addEventListener('beforeunload', guard);
    return () => removeEventListener('beforeunload', guard);
  }, []);

  return { brief, change, history };
}
