'use client';
import { useEffect, useState } from 'react';
import { STORAGE_SENTENCES, STORAGE_STATES, type StorageState } from '../../core/result/storage-trouble';
import { changeStream } from './change-stream';

/** Says on every page that data cannot be written now, as long as that is so. */
export function StorageNotice() {
  const [state, setState] = useState<StorageState>('fine');
  useEffect(() => changeStream().subscribe('storage', (number) => setState(STORAGE_STATES[number] ?? 'fine')), []);
  if (state === 'fine') return null;
  return (
    <div role="alert" className="storage-notice">
      {`Nothing can be saved or rendered now: ${STORAGE_SENTENCES[state]}.`}
    </div>
  );
}
