/** A file of the folder that the server watches: each save becomes the next revision. Shown where there is such a folder. */
import { useEffect, useState } from 'react';
import type { WatchDto } from '../../../contracts/dto';
import { send } from '../../shared/send';
import { REVISION_COPY as COPY } from '../copy';

interface Props {
  project: string;
  /** Changes when what is followed may have come in. */
  stamp: number;
  onMessage: (text: string | null) => void;
}

export function WatchedFile({ project, stamp, onMessage }: Props) {
  const [watch, setWatch] = useState<WatchDto | null>(null);
  useEffect(() => {
    let left = false;
    void send<WatchDto | null>('GET', `/api/projects/${project}/watch`).then((sent) => {
      if (!left && sent.ok) setWatch(sent.value);
    });
    return () => {
      left = true;
    };
  }, [project, stamp]);
  if (!watch) return null;
  const follow = async (file: string | null) => {
    const sent = await send<WatchDto | null>('PUT', `/api/projects/${project}/watch`, { file });
    onMessage(sent.ok ? null : sent.message);
    if (sent.ok) setWatch(sent.value);
  };
  return (
    <>
      <label className="fld">
        <span className="lab">{COPY.watch}</span>
        <select value={watch.file ?? ''} onChange={(e) => void follow(e.target.value || null)}>
          <option value="">{COPY.watchNone}</option>
          {watch.file !== null && !watch.files.includes(watch.file) ? (
            <option value={watch.file}>{watch.file}</option>
          ) : null}
          {watch.files.map((file) => (
            <option key={file} value={file}>
              {file}
            </option>
          ))}
        </select>
      </label>
      {watch.file !== null ? (
        <p className="note">{watch.note === null ? COPY.watching(watch.file) : COPY.notBrought(watch.note)}</p>
      ) : null}
    </>
  );
}
