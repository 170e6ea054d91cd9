/** Every material as it is, or one over everything: clay of some grey, or one of the model's own. */
import { useState } from 'react';
import { CLAY_DEFAULTS, type ClayLook } from '../../../core/brief/brief';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { PanelContext } from '../view';
import { LabelControls } from './label-controls';
import { MaterialList } from './material-list';

const GREYS = [0.1, 0.2, 0.4, 0.6, 0.8].map((value) => ({ value, strong: true, label: `${Math.round(value * 100)}` }));
const percent = (v: number) => `${Math.round(v * 100)}\u00a0%`;

export function LookPanel(context: PanelContext) {
  const { workspace, brief, was, onChange } = context;
  const { materials } = workspace.revision.report;
  const { look } = brief;
  // what clay was set to comes back when one returns to it
  const [kept, setKept] = useState<ClayLook>(look.kind === 'clay' ? look : CLAY_DEFAULTS);
  const set = (next: ClayLook, joins = false) => {
    setKept(next);
    onChange({ look: next }, joins);
  };
  const before = was?.look.kind === 'clay' ? was.look : null;
  return (
    <>
      <Words
        label="Look"
        value={look.kind}
        options={[
          { key: 'photographic', label: 'Photographic' },
          { key: 'clay', label: 'Clay' }
        ]}
        onChoose={(kind) => onChange({ look: kind === 'clay' ? kept : { kind } })}
      />
      <p className="say sec" style={{ border: 0 }}>
        {look.kind === 'clay'
          ? `One material lies over everything${look.glass ? ' but glass' : ''}, so that light and form ` +
            `alone can be judged. Lamps and what glows keep their light, leaves and nets their holes.`
          : 'Every material is rendered as the model has it, or as it is changed here.'}
      </p>
      {look.kind === 'photographic' ? <MaterialList {...context} /> : null}
      <LabelControls {...context} />
      {look.kind === 'clay' ? (
        <>
          {look.material === null ? (
            <div className="sec">
              <div className="row">
                <span className="lab">Reflects</span>
                <span className="n small">{percent(look.grey)} of the light</span>
              </div>
              <PointerScale
                label="Grey of the clay"
                value={look.grey}
                min={0.05}
                max={0.9}
                step={0.01}
                ticks={GREYS}
                valueText={percent(look.grey)}
                was={before?.grey}
                changed={before !== null && before.grey !== look.grey}
                onChange={(v, joins) => set({ ...look, grey: Math.round(v * 100) / 100 }, joins)}
              />
            </div>
          ) : null}
          <div className="sec">
            <span className="lab">Material over everything</span>
            <div className="list two-up" role="group" aria-label="Material over everything">
              {[null, ...materials].map((name) => (
                <button
                  key={name ?? ''}
                  type="button"
                  aria-pressed={look.material === name}
                  onClick={() => set({ ...look, material: name })}
                >
                  {name ?? 'Grey clay'}
                </button>
              ))}
            </div>
          </div>
          <div className="sec">
            <div className="rows">
              <span>Glass stays glass</span>
              <input
                type="checkbox"
                className="toggle toggle-sm"
                aria-label="Glass stays glass"
                checked={look.glass}
                onChange={(e) => set({ ...look, glass: e.target.checked })}
              />
            </div>
          </div>
        </>
      ) : null}
    </>
  );
}
