'use client';
/** Renames, duplicates or removes one thing of a list, behind one word. */
import { useState } from 'react';
import type { RemovableKind, Removed } from '../../core/catalogue/removable';
import { send } from './send';

export const EDIT_COPY = {
  edit: 'Edit',
  save: 'Save',
  duplicate: 'Duplicate',
  remove: 'Remove',
  cancel: 'Cancel',
  newName: (name: string) => `New name for ${name}`,
  removed: (name: string) => `${name[0]?.toUpperCase() ?? ''}${name.slice(1)} is removed.`,
  undo: 'Undo'
};

interface Props {
  kind: RemovableKind;
  id: string;
  name: string;
  onRenamed: (name: string) => void;
  onRemoved: (removed: Removed) => void;
  onDuplicate?: () => void;
  onMessage: (text: string | null) => void;
}

export function EditItem({ kind, id, name, onRenamed, onRemoved, onDuplicate, onMessage }: Props) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState(name);
  if (!open)
    return (
      <button
        type="button"
        className="lk act"
        aria-label={`${EDIT_COPY.edit} ${name}`}
        onClick={() => {
          setText(name);
          setOpen(true);
        }}
      >
        {EDIT_COPY.edit}
      </button>
    );
  const rename = async () => {
    if (text.trim() === name) return setOpen(false);
    const sent = await send<{ name: string }>('PUT', '/api/names', { kind, id, name: text });
    onMessage(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    setOpen(false);
    onRenamed(sent.value.name);
  };
  const remove = async () => {
    const sent = await removeThing(kind, id);
    onMessage(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    setOpen(false);
    onRemoved(sent.value);
  };
  return (
    <form
      className="edit"
      onSubmit={(e) => {
        e.preventDefault();
        void rename();
      }}
      onKeyDown={(e) => {
        if (e.key !== 'Escape') return;
        e.stopPropagation();
        setOpen(false);
      }}
    >
      <span className="fld">
        <input
          // the field is what was asked for
          // biome-ignore lint/a11y/noAutofocus: it opens by the user's own press
          autoFocus
          aria-label={EDIT_COPY.newName(name)}
          value={text}
          maxLength={120}
          onChange={(e) => setText(e.target.value)}
        />
      </span>
      <span className="acts">
        <button type="submit" className="lk">
          {EDIT_COPY.save}
        </button>
        {onDuplicate ? (
          <button
            type="button"
            className="lk"
            onClick={() => {
              setOpen(false);
              onDuplicate();
            }}
          >
            {EDIT_COPY.duplicate}
          </button>
        ) : null}
        <button type="button" className="lk" onClick={() => void remove()}>
          {EDIT_COPY.remove}
        </button>
        <button type="button" className="lk" onClick={() => setOpen(false)}>
          {EDIT_COPY.cancel}
        </button>
      </span>
    </form>
  );
}

export const removeThing = (kind: RemovableKind, id: string) => send<Removed>('POST', '/api/removal', { kind, id });

export const bringBack = ({ kind, id }: Removed) => send<null>('POST', '/api/restore', { kind, id });
