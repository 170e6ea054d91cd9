'use client';
/** The empty slip: drop a model, or choose one. Says how far it is, and what was wrong with a file that was refused. */
import { fromEvent } from 'file-selector';
import { useRouter } from 'next/navigation';
import { type RefObject, useRef, useState } from 'react';
import type { DeskDto } from '../../contracts/dto';
import type { LengthUnit } from '../../core/units/units';
import type { Recognition } from '../../formats/model/recognition';
import { bytes, type PlacedFile, send, uploadAll } from '../shared/send';
import { COPY } from './copy';
import { SizeCheck } from './size-check';

type Sent = { upload: string; name: string }[];
type Found = Recognition & { size: [number, number, number] };
type State =
  | { step: 'idle' }
  | { step: 'sending'; name: string; share: number }
  | { step: 'reading'; name: string }
  | { step: 'asking'; name: string; size: number; sent: Sent; found: Found }
  | { step: 'refused'; name: string; size: number; message: string };

interface Props {
  input: RefObject<HTMLInputElement | null>;
  formats: DeskDto['formats'];
}

export function NewProject({ input, formats }: Props) {
  const router = useRouter();
  const [state, setState] = useState<State>({ step: 'idle' });
  const abort = useRef<AbortController | null>(null);
  const isMain = (name: string) => formats.extensions.some((e) => name.toLowerCase().endsWith(`.${e}`));

  const bringIn = async (files: PlacedFile[]) => {
    if (files.length === 0) return;
    const { name } = files.find((f) => isMain(f.name)) ?? files[0]!;
    const size = files.reduce((sum, f) => sum + f.size, 0);
    const refuse = (message: string) => setState({ step: 'refused', name, size, message });
    abort.current = new AbortController();
    const sent = await uploadAll(files, (share) => setState({ step: 'sending', name, share }), abort.current.signal);
    if (!sent.ok) return refuse(sent.message);
    setState({ step: 'reading', name });
    const found = await send<Recognition>('POST', '/api/models/recognise', { files: sent.value });
    if (!found.ok) return refuse(found.message);
    if (found.value.size !== null && found.value.asks.length > 0)
      return setState({ step: 'asking', name, size, sent: sent.value, found: found.value as Found });
    await create(name, size, sent.value, null, null);
  };

  const create = async (name: string, size: number, files: Sent, unit: LengthUnit | null, up: 'y' | 'z' | null) => {
    setState({ step: 'reading', name });
    const made = await send<{ project: string }>('POST', '/api/projects', { files, unit, up });
    if (!made.ok) return setState({ step: 'refused', name, size, message: made.message });
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
            // folders are opened up; the list of what was dropped is only there during the event
            if (!busy) void fromEvent(e.nativeEvent).then((files) => bringIn(files as PlacedFile[]));
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
              <b>{COPY.drop}</b>
              <i>{COPY.formats(formats.text)}</i>
              <u className="lk">{COPY.choose}</u>
            </span>
          ) : state.step === 'refused' ? (
            <span>
              <b>{state.name}</b>
              <i className="n">
                {bytes(state.size)}, {COPY.refused}
              </i>
              <u className="lk">{COPY.chooseOther}</u>
            </span>
          ) : (
            <span>
              <b>{state.name}</b>
              <i className="n" role="status">
                {state.step === 'sending'
                  ? `${Math.floor(state.share * 100)}\u00a0% of the file is here`
                  : state.step === 'asking'
                    ? state.found.format
                    : COPY.reading}
              </i>
            </span>
          )}
        </label>
      </span>
      <b className="ttl">{COPY.newProject}</b>
      {state.step === 'refused' ? (
        <span className="d1 refusal" role="alert">
          {sentence(state.message)}
        </span>
      ) : state.step === 'sending' ? (
        <button type="button" className="lk act" onClick={() => abort.current?.abort()}>
          {COPY.stop}
        </button>
      ) : state.step === 'asking' ? (
        <SizeCheck
          found={state.found}
          onAnswer={(unit, up) => void create(state.name, state.size, state.sent, unit, up)}
        />
      ) : (
        <span className="d1">{COPY.named}</span>
      )}
    </div>
  );
}

const sentence = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)}.`;
