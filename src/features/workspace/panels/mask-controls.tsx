/** Parts and materials of a film that are adjusted alone, picked on the stage. */
import type { Brief, Finish } from '../../../core/brief/brief';
import type { MaskOf } from '../../../core/film/masks';
import { evText } from '../../../core/brief/amounts';
import { MAX_COOL, MAX_WARM } from '../../../core/color/kelvin';
import { FINISH_COPY as COPY, WARMTHS, warmthText } from '../finish/copy';
import type { Finishing } from '../finish/use-finishing';
import type { ChangeBrief } from '../use-brief';
import type { Picking } from '../view';
import { Level } from './level';

interface Props {
  brief: Brief;
  finishing: Finishing;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onChange: ChangeBrief;
  onMessage: (text: string | null) => void;
}

type Mask = Finish['masks'][number];

const STOPS = [-3, -2, -1, 0, 1, 2, 3].map((value) => ({ value, strong: value === 0 }));
const BALANCE = [-1, 0, 1].map((value) => ({ value, strong: value === 0 }));
const MASKS_OF: readonly MaskOf[] = ['part', 'material'];

export function MaskControls({ brief, finishing, picking, onPicking, onChange, onMessage }: Props) {
  const { finish, quality } = brief;
  const set = (masks: Mask[], joins = false) => onChange({ finish: { ...finish, masks } }, joins);
  const asking = picking?.asks === 'mask' || picking?.asks === 'mask of a material';
  const ask = (of: MaskOf) =>
    onPicking({
      asks: of === 'part' ? 'mask' : 'mask of a material',
      says: COPY.pickMask[of],
      onPlace: (u, v) =>
        void finishing.pick(u, v).then((found) => {
          const name = found?.[of] ?? null;
          if (name === null) return onMessage(COPY.nothingThere);
          onMessage(null);
          onPicking(null);
          if (finish.masks.some((m) => m.of === of && m.name === name)) return;
          set([...finish.masks, { of, name, exposure_ev: 0, warmth_mired: 0, saturation: 0 }]);
        })
    });
  if (finishing.film && !finishing.film.hasMasks)
    return (
      <div className="sec">
        <span className="lab">{COPY.masks}</span>
        <p className="note">
          {quality.aovs ? COPY.masksKept : COPY.noMasks}{' '}
          {quality.aovs ? null : (
            <button type="button" className="lk act" onClick={() => onChange({ quality: { ...quality, aovs: true } })}>
              {COPY.keepMasks}
            </button>
          )}
        </p>
      </div>
    );
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">{COPY.masks}</span>
        {asking ? (
          <button type="button" className="lk act" onClick={() => onPicking(null)}>
            {COPY.done}
          </button>
        ) : (
          <span className="row">
            {MASKS_OF.map((of) => (
              <button key={of} type="button" className="lk act" onClick={() => ask(of)}>
                {COPY.pick[of]}
              </button>
            ))}
          </span>
        )}
      </div>
      {finish.masks.map((mask, i) => {
        const change = (part: Partial<Mask>, joins = false) =>
          set(
            finish.masks.map((m, at) => (at === i ? { ...m, ...part } : m)),
            joins
          );
        return (
          <div key={`${mask.of} ${mask.name}`} role="group" aria-label={mask.name}>
            <div className="row">
              <span title={mask.name}>{mask.name.split('/').at(-1)}</span>
              <button
                type="button"
                className="lk"
                aria-label={COPY.removeMask(mask.name)}
                onClick={() => set(finish.masks.filter((_, at) => at !== i))}
              >
                {COPY.remove}
              </button>
            </div>
            <Level
              name={COPY.exposure}
              label={`${mask.name}, ${COPY.exposure}`}
              value={mask.exposure_ev}
              range={[-3, 3, 0.05]}
              ticks={STOPS}
              text={evText(mask.exposure_ev)}
              initial={0}
              onChange={(v, joins) => change({ exposure_ev: Math.round(v * 100) / 100 }, joins)}
            />
            <Level
              name={COPY.warmthName}
              label={`${mask.name}, ${COPY.warmthName}`}
              value={mask.warmth_mired}
              range={[MAX_COOL, MAX_WARM, 5]}
              ticks={WARMTHS}
              text={mask.warmth_mired === 0 ? 'none' : warmthText(mask.warmth_mired).replace(' mired', '')}
              initial={0}
              onChange={(v, joins) => change({ warmth_mired: Math.round(v) }, joins)}
            />
            <Level
              name={COPY.saturation}
              label={`${mask.name}, ${COPY.saturation}`}
              value={mask.saturation}
              range={[-1, 1, 0.01]}
              ticks={BALANCE}
              text={COPY.percent(mask.saturation)}
              initial={0}
              onChange={(v, joins) => change({ saturation: Math.round(v * 100) / 100 }, joins)}
            />
          </div>
        );
      })}
      <p className="note">{finish.masks.length === 0 ? COPY.masksSay : ''}</p>
    </div>
  );
}
