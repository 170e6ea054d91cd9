/** The lights of a film, each alone on a ticket with its level and warmth. */
import type { Brief, Finish } from '../../../core/brief/brief';
import type { Dimmer } from '../../../core/film/dimmers';
import { sameGroup } from '../../../core/scene/lamp-groups';
import { capital } from '../../../core/brief/amounts';
import { MAX_COOL, MAX_WARM } from '../../../core/color/kelvin';
import { PointerScale } from '../../../ui/pointer-scale';
import type { ChangeBrief } from '../use-brief';
import { FINISH_COPY as COPY, WARMTHS, warmthText } from './copy';
import type { Finishing } from './use-finishing';

interface Props {
  finishing: Finishing;
  brief: Brief;
  /** As the proof was finished. */
  before: Finish;
  onChange: ChangeBrief;
  onBack: () => void;
}

const LEVELS = [-4, -3, -2, -1, 0, 1, 2].map((value) => ({ value, strong: value === 0 }));

const settingIn = (lamps: readonly Dimmer[], group: string): Dimmer =>
  lamps.find((l) => sameGroup(l.group, group)) ?? { group, on: true, dim_ev: 0, warmth_mired: 0 };
const isNeutral = ({ on, dim_ev, warmth_mired }: Dimmer) => on && dim_ev === 0 && warmth_mired === 0;

/** Dimmers with one of them set; those that change nothing are not listed. */
export const withDimmer = (lamps: readonly Dimmer[], next: Dimmer): Dimmer[] => [
  ...lamps.filter((l) => !sameGroup(l.group, next.group)),
  ...(isNeutral(next) ? [] : [next])
];

export function Dimmers({ finishing, brief, before, onChange, onBack }: Props) {
  const { film, alone, settling } = finishing;
  const { finish, quality } = brief;
  const groups = film?.groups ?? [];
  const set = (next: Dimmer, joins = false) =>
    onChange({ finish: { ...finish, lamps: withDimmer(finish.lamps, next) } }, joins);
  return (
    <section className="strip dimmers" aria-label="Dimmers">
      <header>
        <span>{groups.length > 0 ? COPY.dimmers(groups.length) : ''}</span>
        <span>
          {settling ? <span className="note">{COPY.settling}</span> : null}
          {finish.lamps.length > 0 ? (
            <button type="button" className="lk" onClick={() => onChange({ finish: { ...finish, lamps: [] } })}>
              {COPY.allAsRendered}
            </button>
          ) : null}
          <button type="button" className="lk" onClick={onBack}>
            {COPY.back}
          </button>
        </span>
      </header>
      {film && groups.length === 0 ? (
        <p className="say">
          {quality.layers ? COPY.layersKept : COPY.noLayers}{' '}
          {quality.layers ? null : (
            <button
              type="button"
              className="lk act"
              onClick={() => onChange({ quality: { ...quality, layers: true } })}
            >
              {COPY.keepLayers}
            </button>
          )}
        </p>
      ) : null}
      <ol className="tks">
        {groups.map((group) => {
          const now = settingIn(finish.lamps, group);
          const was = settingIn(before.lamps, group);
          const name = capital(group);
          return (
            <li key={group} className="tk dim">
              <div className="b">
                <span className="th">
                  {alone[group] ? <img src={alone[group]} alt={COPY.alone(group)} /> : <span className="blank" />}
                  <span className="nm" title={name}>
                    {name}
                  </span>
                </span>
                <span className="d">
                  <span className="row">
                    <label className="note">
                      <input
                        type="checkbox"
                        aria-label={COPY.switch(name)}
                        checked={now.on}
                        onChange={(e) => set({ ...now, on: e.target.checked })}
                      />
                      {COPY.level}
                    </label>
                    <span className={`n${now.dim_ev !== was.dim_ev || now.on !== was.on ? ' livec' : ''}`}>
                      {now.on ? COPY.levelText(now.dim_ev) : COPY.off}
                    </span>
                  </span>
                  <PointerScale
                    label={`${name}, level`}
                    width={100}
                    value={now.dim_ev}
                    min={-4}
                    max={2}
                    step={0.05}
                    initial={0}
                    ticks={LEVELS}
                    valueText={COPY.levelText(now.dim_ev)}
                    was={was.dim_ev}
                    changed={now.dim_ev !== was.dim_ev}
                    onChange={(dim_ev, joins) =>
                      set({ ...now, on: true, dim_ev: Math.round(dim_ev * 100) / 100 }, joins)
                    }
                  />
                  <span className="row">
                    <span className="note">{COPY.warmth}</span>
                    <span className={`n${now.warmth_mired !== was.warmth_mired ? ' livec' : ''}`}>
                      {warmthText(now.warmth_mired)}
                    </span>
                  </span>
                  <PointerScale
                    label={`${name}, warmth`}
                    width={100}
                    value={now.warmth_mired}
                    min={MAX_COOL}
                    max={MAX_WARM}
                    step={5}
                    initial={0}
                    ticks={WARMTHS}
                    valueText={warmthText(now.warmth_mired)}
                    was={was.warmth_mired}
                    changed={now.warmth_mired !== was.warmth_mired}
                    onChange={(warmth_mired, joins) => set({ ...now, warmth_mired }, joins)}
                  />
                </span>
              </div>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
