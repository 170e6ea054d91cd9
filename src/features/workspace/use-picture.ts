'use client';
/** The picture in hand is part of the address: choosing one is a step that the browser's Back undoes. */
import { useEffect, useRef } from 'react';
import type { OpenPictureDto } from '../../contracts/dto';
import { send } from '../shared/send';

export function usePicture(
  project: string,
  inHand: string,
  onOpen: (opened: OpenPictureDto) => void,
  onMessage: (text: string | null) => void
): (id: string) => void {
  const asked = useRef(inHand);
  const on = useRef({ onOpen, onMessage });
  on.current = { onOpen, onMessage };
  const open = async (id: string) => {
    if (id === asked.current) return;
    asked.current = id;
    const sent = await send<OpenPictureDto>('GET', `/api/pictures/${id}`);
    // another was chosen meanwhile
    if (asked.current !== id) return;
    if (sent.ok) on.current.onOpen(sent.value);
    else {
      asked.current = inHand;
      on.current.onMessage(sent.message);
    }
  };
  const opens = useRef(open);
  opens.current = open;
  useEffect(() => {
    const first = new URL(location.href).searchParams.get('picture') ?? asked.current;
    const back = () => void opens.current(new URL(location.href).searchParams.get('picture') ?? first);
    addEventListener('popstate', back);
    return () => removeEventListener('popstate', back);
  }, []);
  return (id) => {
    if (id === asked.current) return;
    window.history.pushState(null, '', `/p/${project}?picture=${id}${location.hash}`);
    void open(id);
  };
}
