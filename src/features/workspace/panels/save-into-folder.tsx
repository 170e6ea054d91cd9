/** Saves a picture of each kind asked for into a folder of the user's, one after the other. Not all browsers can. */
import { useEffect, useRef, useState } from 'react';
import { unusedName } from '../../../core/output/file-name';
import { follow, send } from '../../shared/send';
import { FILES_COPY as COPY } from '../copy';

/** What browsers have of it; TypeScript does not know it yet. */
type Chooser = (options: { mode: 'readwrite'; id: string }) => Promise<Folder>;
type Folder = FileSystemDirectoryHandle & { keys(): AsyncIterable<string> };
const chooser = (): Chooser | null =>
  (window as { showDirectoryPicker?: Chooser }).showDirectoryPicker?.bind(window) ?? null;

interface Props {
  project: string;
  /** How each file is to be, as in its address. */
  query: URLSearchParams;
}

export function SaveIntoFolder({ project, query }: Props) {
  const [can, setCan] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const stop = useRef<AbortController | null>(null);
  useEffect(() => {
    setCan(chooser() !== null);
    return () => stop.current?.abort();
  }, []);
  const save = async () => {
    let folder: Folder;
    try {
      folder = await chooser()!({ mode: 'readwrite', id: 'sphaera-set' });
    } catch {
      // none was chosen
      return;
    }
    const control = new AbortController();
    stop.current = control;
    setShare(0);
    setSaid(null);
    const message = await saveSet(folder, project, query, control.signal, (done, of, name) => {
      setShare(done / of);
      setSaid(COPY.intoFolder(Math.floor(done), of, name));
    });
    setShare(null);
    setSaid(message);
  };
  if (!can) return null;
  return (
    <>
      {share === null ? (
        <p>
          <button type="button" className="lk act" onClick={() => void save()}>
            {COPY.folder}
          </button>
        </p>
      ) : (
        <div className="row">
          <progress className="progress" aria-label={COPY.folder} value={share} max={1} />
          <button type="button" className="lk" onClick={() => stop.current?.abort()}>
            {COPY.stop}
          </button>
        </div>
      )}
      {said === null ? null : (
        <p className="note" role="status">
          {said}
        </p>
      )}
    </>
  );
}

/** What is to be said of it at the end. `onProgress`: files that are there, with the share of the one under way. */
async function saveSet(
  folder: Folder,
  project: string,
  query: URLSearchParams,
  stop: AbortSignal,
  onProgress: (done: number, of: number, name: string | null) => void
): Promise<string> {
  const proofs = await send<string[]>('POST', `/api/projects/${project}/set`, {});
  if (!proofs.ok) return proofs.message;
  const of = proofs.value.length;
  try {
    const taken = new Set<string>();
    for await (const name of folder.keys()) taken.add(name);
    for (const [i, proof] of proofs.value.entries()) {
      onProgress(i, of, null);
      const address = `/api/proofs/${proof}/file?${query}`;
      const written = await follow<{ name: string }, number>(
        address,
        {},
        (share) => onProgress(i + share, of, null),
        stop
      );
      if (!written.ok) return stop.aborted ? COPY.intoFolder(i, of, null) : written.message;
      const name = unusedName(written.value.name, taken);
      taken.add(name);
      const file = await fetch(address, { signal: stop });
      if (!file.ok || !file.body) return COPY.folderRefused;
      const entry = await folder.getFileHandle(name, { create: true });
      await file.body.pipeTo(await entry.createWritable(), { signal: stop });
      onProgress(i + 1, of, name);
    }
  } catch {
    return stop.aborted ? COPY.stopped : COPY.folderRefused;
  }
  return COPY.folderDone(of, folder.name);
}
