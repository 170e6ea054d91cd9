/** Where the picture will be seen: screens or sheets, each with its size; own ones below. */
import { useState } from 'react';
import { canonicalJson } from '../../../core/brief/brief';
import { DESTINATIONS, seenAt } from '../../../core/output/destinations';
import { resolveSize } from '../../../core/output/size';
import { Words } from '../../../ui/words';
import type { PanelContext } from '../view';
import { KeptList } from './kept-list';

type Props = Pick<PanelContext, 'workspace' | 'brief' | 'onChange' | 'onMessage' | 'onWorkspace'>;

export function DestinationList(props: Props) {
  const { brief, onChange } = props;
  const [shown, setShown] = useState<'screen' | 'print'>('ppi' in brief.size ? 'print' : 'screen');
  const chosen = DESTINATIONS.find(
    (d) => canonicalJson(d.size) === canonicalJson(brief.size) && d.name === brief.seen.destination?.name
  );
  return (
    <fieldset className="sec first tight">
      <div className="row">
        <span className="lab">Where will it be seen?</span>
        <Words
          label="Kind of destination"
          value={shown}
          options={[
            { key: 'screen', label: 'on a screen' },
            { key: 'print', label: 'printed' }
          ]}
          onChoose={setShown}
        />
      </div>
      <div className="dest" role="radiogroup" aria-label="Where will it be seen?">
        {DESTINATIONS.filter((d) => 'ppi' in d.size === (shown === 'print')).map((d) => {
          const s = resolveSize(d.size);
          const k =
            Math.min(34 / s.width_px, 22 / s.height_px) *
            (0.55 + 0.45 * Math.min(1, Math.max(s.width_px, s.height_px) / 4300));
          const [w, h] = [s.width_px * k, s.height_px * k];
          return (
            <label key={d.name} title={d.distance_m === null ? undefined : `Seen from ${d.distance_m} m: ${s.ppi} ppi`}>
              <input
                className="vh"
                type="radio"
                name="dest"
                checked={d === chosen}
                onChange={() => onChange({ size: d.size, seen: seenAt(d) })}
              />
              <svg viewBox="0 0 34 22" aria-hidden="true">
                <rect x={(34 - w) / 2} y={(22 - h) / 2} width={w} height={h} />
              </svg>
              <span>{d.name}</span>
              <span className="n">
                {s.width_px} × {s.height_px}
              </span>
            </label>
          );
        })}
      </div>
      <details className="more">
        <summary>Saved destinations</summary>
        <KeptList {...props} kind="destination" title="In all projects" asks="name this size" />
      </details>
    </fieldset>
  );
}
