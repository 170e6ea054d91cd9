/**
 * Openings without a pane: two opposite corners are pressed on the wall about one, and its room gets its daylight from
 * there. Panes are found by themselves.
 */
import { useState } from 'react';
import type { Brief } from '../../../core/brief/brief';
import type { Vec3 } from '../../../core/math/vec3';
import { openingBetween } from '../../../core/scene/opening';
import type { Picking } from '../view';

interface Props {
  openings: Brief['openings'];
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onSet: (openings: Brief['openings']) => void;
  onMessage: (text: string | null) => void;
}

const rounded = (p: Vec3): Vec3 => [
  Math.round(p[0] * 1e4) / 1e4,
  Math.round(p[1] * 1e4) / 1e4,
  Math.round(p[2] * 1e4) / 1e4
];

export function OpeningControls({ openings, picking, onPicking, onSet, onMessage }: Props) {
  const [open, setOpen] = useState(openings.length > 0);
  const asking = picking?.asks === 'corner';
  const askSecond = (first: Vec3, normal: Vec3) =>
    onPicking({
      asks: 'corner',
      says: 'And the corner opposite.',
      onPick: (point, _normal, joins) => {
        if (joins) return;
        const found = openingBetween(first, point, normal);
        onPicking(null);
        if (!found)
          return onMessage(
            'these two corners are at the same place or along one edge; pick two opposite corners of the opening'
          );
        onMessage(null);
        onSet([...openings, { ...found, middle_m: [...rounded(found.middle_m)], normal: [...rounded(found.normal)] }]);
      }
    });
  const ask = () =>
    asking
      ? onPicking(null)
      : onPicking({
          asks: 'corner',
          says: 'Pick a corner of the opening, on the wall.',
          onPick: (point, normal, joins) => {
            if (!joins) askSecond(point, normal);
          }
        });
  return (
    <div className="sec">
      <div className="row">
        <button type="button" className="lk act" aria-expanded={open} onClick={() => setOpen(!open)}>
          Window openings
        </button>
        {open ? (
          <button type="button" className="lk act" aria-pressed={asking} onClick={ask}>
            {asking ? 'Done' : 'Mark an opening'}
          </button>
        ) : null}
      </div>
      {open ? (
        <>
          <p className="note">
            A room is clean sooner when it is known where its daylight comes in. Panes of glass are found by themselves.
          </p>
          {openings.map((o, i) => (
            <div key={o.middle_m.join(' ')} className="row">
              <span>
                Opening {i + 1}{' '}
                <span className="n small">
                  {o.width_m.toFixed(2)} × {o.height_m.toFixed(2)} m
                </span>
              </span>
              <button type="button" className="lk act" onClick={() => onSet(openings.filter((p) => p !== o))}>
                take out
              </button>
            </div>
          ))}
        </>
      ) : null}
    </div>
  );
}
