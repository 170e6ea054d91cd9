'use client';
/** The empty slip: drop a model, or choose one. Says how far it is, and what was wrong with a file that was refused. */
import { useRouter } from 'next/navigation';
import { type RefObject, useRef, useState } from 'react';
import { bytes, send, upload } from '../shared/send';
import { FORMATS } from './copy';

type State =
  | { step: 'idle' }
  | { step: 'sending'; name: string; share: number }
  | { step: 'reading'; name: string }
  | { step: 'refused'; name: string; size: number; message: string };

const UNITS = [
  ['m', 'metres'],
  ['mm', 'millimetres'],
  ['cm', 'centimetres'],
  ['in', 'inches'],
  ['ft', 'feet']
] as const;

export function NewProject({ input }: { input: RefObject<HTMLInputElement | null> }) {
  const router = useRouter();
  const [state, setState] = useState<State>({ step: 'idle' });
  const [unit, setUnit] = useState<string>('m');
  const [up, setUp] = useState<'y' | 'z'>('y');
  const abort = useRef<AbortController | null>(null);

  const bringIn = async (files: File[]) => {
    if (files.length === 0) return;
    const main = files.find((f) => /\.(glb|gltf|zip)$/i.test(f.name)) ?? files[0]!;
    const total = files.reduce((sum, f) => sum + f.size, 0);
    abort.current = new AbortController();
    const sent: { upload: string; name: string }[] = [];
    let before = 0;
    for (const file of files) {
      const result = await upload(
        file,
        (share) =>
          setState({ step: 'sending', name: main.name, share: (before + share * file.size) / Math.max(1, total) }),
        abort.current.signal
      );
      if (!result.ok) return setState({ step: 'refused', name: main.name, size: total, message: result.message });
      before += file.size;
      sent.push({ upload: result.value.upload, name: file.webkitRelativePath || file.name });
    }
    setState({ step: 'reading', name: main.name });
    const made = await send<{ project: string }>('POST', '/api/projects', { files: sent, unit, up });
    if (!made.ok) return setState({ step: 'refused', name: main.name, size: total, message: made.message });
    router.push(`/p/${made.value.project}`);
  };

  const busy = state.step === 'sending' || state.step === 'reading';
  return (
    <div className="pj">
      <span className="hold">
        <label
          className="slot new"
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault();
            if (!busy) void bringIn([...e.dataTransfer.files]);
          }}
        >
          <input
            ref={input}
            className="vh"
            type="file"
            multiple
            disabled={busy}
            aria-label="Choose a model file"
            onChange={(e) => {
              void bringIn([...(e.target.files ?? [])]);
              e.target.value = '';
            }}
          />
          {state.step === 'idle' ? (
            <span>
              <b>Drop a model here</b>
              <i>{FORMATS}, up to 2&nbsp;GB</i>
              <u className="lk">Choose a file</u>
            </span>
          ) : state.step === 'refused' ? (
            <span>
              <b>{state.name}</b>
              <i className="n">{bytes(state.size)}, not brought in</i>
              <u className="lk">Choose another file</u>
            </span>
          ) : (
            <span>
              <b>{state.name}</b>
              <i className="n" role="status">
                {state.step === 'sending'
                  ? `${Math.floor(state.share * 100)}\u00a0% of the file is here`
                  : 'reading the model'}
              </i>
            </span>
          )}
        </label>
      </span>
      <b className="ttl">A new project</b>
      {state.step === 'refused' ? (
        <span className="d1 refusal" role="alert">
          {sentence(state.message)}
        </span>
      ) : state.step === 'sending' ? (
        <button type="button" className="lk act" onClick={() => abort.current?.abort()}>
          Stop
        </button>
      ) : (
        <>
          <span className="d1">It takes its name from the file</span>
          <span className="d2">
            <select
              className="plainselect"
              aria-label="Unit of the file"
              value={unit}
              onChange={(e) => setUnit(e.target.value)}
            >
              {UNITS.map(([key, label]) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
            <select
              className="plainselect"
              aria-label="Which axis points up"
              value={up}
              onChange={(e) => setUp(e.target.value as 'y' | 'z')}
            >
              <option value="y">Y is up</option>
              <option value="z">Z is up</option>
            </select>
          </span>
        </>
      )}
    </div>
  );
}

const sentence = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)}.`;
