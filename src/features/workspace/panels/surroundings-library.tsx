/** The library of surroundings: each as it lights the same ball and card, to compare; choosing one takes it into the brief. */
import { useState } from 'react';
import { canonicalJson, type Surroundings } from '../../../core/brief/brief';
import { SURROUNDINGS_LIBRARY } from '../../../core/brief/surroundings-library';

export function SurroundingsLibrary({ surroundings, onChoose }: { surroundings: Surroundings; onChoose: (surroundings: Surroundings) => void }) {
  const [open, setOpen] = useState(false);
  const now = canonicalJson(surroundings);
  return (
    <div className="sec" style={{ borderTop: 0, paddingTop: 0 }}>
      <button type="button" className="lk act" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Close the library' : 'From the library'}
      </button>
      {open ? (
        <div className="shelf" role="group" aria-label="Library of surroundings">
          {SURROUNDINGS_LIBRARY.map((entry) => (
            <button key={entry.key} type="button" aria-pressed={canonicalJson(entry.surroundings) === now} onClick={() => onChoose(entry.surroundings)}>
              <img src={`/api/library/${entry.key}`} alt="" width="144" height="81" loading="lazy" />
              {entry.name}
            </button>
          ))}
        </div>
      ) : null}
    </div>
  );
}
