/**
 * The library of surroundings: each as it lights the same ball and card, to compare; choosing one takes it into the
 * brief.
 */
import { useState } from 'react';
import { canonicalJson } from '../../../core/brief/brief';
import { SURROUNDINGS_LIBRARY, takenFor } from '../../../core/brief/surroundings-library';
import type { PanelContext } from '../view';
import { KeptList } from './kept-list';

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'onChange' | 'onMessage' | 'onWorkspace'>;

export function SurroundingsLibrary(props: Props) {
  const { brief, onChange } = props;
  const [open, setOpen] = useState(false);
  const now = canonicalJson(brief.surroundings);
  return (
    <div className="sec first">
      <button type="button" className="lk act" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Close library' : 'Library'}
      </button>
      {open ? (
        <KeptList
          {...props}
          kind="surroundings"
          title="Saved surroundings, in all projects"
          asks="name these surroundings"
        />
      ) : null}
      {open ? (
        <div className="shelf" role="group" aria-label="Library of surroundings">
          {SURROUNDINGS_LIBRARY.map((entry) => (
            <button
              key={entry.key}
              type="button"
              aria-pressed={canonicalJson(takenFor(entry, brief.surroundings)) === now}
              onClick={() => onChange({ surroundings: takenFor(entry, brief.surroundings) })}
            >
              <img src={`/api/library/${entry.key}`} alt="" width="144" height="81" loading="lazy" />
              {entry.name}
            </button>
          ))}
        </div>
      ) : null}
    </div>
  );
}
