/**
 * What is seen where nothing stands: the surroundings themselves, or what the finish puts there. It never needs a new
 * render.
 */
import { limitsOf } from '../../../core/brief/limits';
import { useRef, useState } from 'react';
import type { Background, GradedBackground, PaperBackground } from '../../../core/brief/brief';
import { CORNERS } from '../../../core/catalogue/corners';
import { aspectOf } from '../../../core/output/fit-frame';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import type { PanelContext } from '../view';
import { Level } from './level';
import { PICTURE_START, PictureControls } from './picture-background';

const LIGHTNESS = [0, 20, 40, 60, 80, 100].map((value) => ({ value, strong: value % 100 === 0 }));
const SPREADS = [0, 0.5, 1, 1.5, 2].map((value) => ({ value, strong: value === 1 }));
const FALLS = [-40, -20, 0, 20, 40].map((value) => ({ value, strong: value === 0 }));
const GRAINS = [0, 1, 2, 3, 4].map((value) => ({ value, strong: value === 0 }));

type Made = Exclude<Background['kind'], 'clear'>;
const STARTS: Record<Exclude<Made, 'picture'>, Background> = {
  own: { kind: 'own' },
  plain: { kind: 'plain', lightness: 96 },
  graded: { kind: 'graded', from: '#8d949b', to: '#e9e7e3', angle_deg: 0, spread: 1 },
  paper: { kind: 'paper', lightness: 92, corner: 'upper left', fall: 5, grain: 1 }
};
const NAMES: Record<Made, string> = {
  own: 'Surroundings',
  plain: 'Grey',
  graded: 'Gradient',
  paper: 'Paper',
  picture: 'Picture'
};

const tenth = (v: number) => Math.round(v * 10) / 10;

/** `papered`: a studio's paper stands all round, so nothing behind it is seen. */
export function BackgroundControls({
  papered,
  ...props
}: Pick<PanelContext, 'workspace' | 'brief' | 'onChange' | 'onMessage' | 'onWorkspace'> & { papered: boolean }) {
  const { workspace, brief, onChange } = props;
  const { finish } = brief;
  const { background } = finish;
  // asked for, but none is chosen yet
  const [picturing, setPicturing] = useState(false);
  const pictured = background.kind === 'picture' ? background : null;
  const shown: Made = picturing ? 'picture' : background.kind === 'clear' ? 'own' : background.kind;
  const choose = (kind: Made) => {
    const [first] = workspace.backdrops;
    setPicturing(kind === 'picture' && !first);
    if (kind !== 'picture') set(STARTS[kind]);
    else if (first) set({ ...PICTURE_START, file: first.sha256 });
  };
  const set = (next: Background, joins = false) => onChange({ finish: { ...finish, background: next } }, joins);
  return (
    <div className="sec first">
      <span className="lab">Background</span>
      <Words
        label="Background"
        value={shown}
        options={(Object.keys(NAMES) as Made[]).map((key) => ({ key, label: NAMES[key] }))}
        onChoose={choose}
      />
      {background.kind === 'plain' ? (
        <Level
          name="Lightness"
          label="Lightness of the background"
          value={background.lightness}
          range={[0, 100, 1]}
          ticks={LIGHTNESS}
          text={`L* ${background.lightness}`}
          onChange={(lightness, joins) => set({ kind: 'plain', lightness }, joins)}
        />
      ) : null}
      {background.kind === 'graded' ? <GradedControls background={background} onSet={set} /> : null}
      {background.kind === 'paper' ? <PaperControls background={background} onSet={set} /> : null}
      {shown === 'picture' ? (
        <PictureControls
          {...props}
          background={pictured}
          aspect={aspectOf(brief.size)}
          onSet={(next, joins) => {
            setPicturing(false);
            set(next, joins);
          }}
        />
      ) : null}
      {background.kind === 'own' ? null : (
        <p className="note">
          {papered
            ? 'The studio’s paper hides it. Set the ground to Shadow only to see it.'
            : 'Shows at once, also behind glass. It needs no new render.'}
        </p>
      )}
    </div>
  );
}

function GradedControls({
  background,
  onSet
}: {
  background: GradedBackground;
  onSet: (next: Background, joins?: boolean) => void;
}) {
  // a colour is looked for by many changes, which are one
  const looking = useRef(false);
  const set = (part: Partial<GradedBackground>, joins = false) => onSet({ ...background, ...part }, joins);
  return (
    <>
      <div className="rows" style={{ marginTop: 8 }}>
        {(['from', 'to'] as const).map((end) => (
          <label key={end} style={{ display: 'contents' }}>
            <span>{end === 'from' ? 'From' : 'To'}</span>
            <input
              type="color"
              aria-label={`Gradient colour ${end}`}
              className="swatch"
              value={background[end]}
              onFocus={() => {
                looking.current = false;
              }}
              onChange={(e) => {
                set({ [end]: e.target.value }, looking.current);
                looking.current = true;
              }}
            />
          </label>
        ))}
        <span>Towards</span>
        <NumberField
          label="Direction of the gradient"
          value={background.angle_deg}
          {...limitsOf('finish.background.graded.angle_deg')}
          unit="° from down"
          onChange={(angle_deg) => set({ angle_deg })}
        />
      </div>
      <Level
        name="Width"
        label="Width of the gradient"
        value={background.spread}
        range={[0, 2, 0.05]}
        ticks={SPREADS}
        text={`${Math.round(background.spread * 100)} %`}
        onChange={(v, joins) => set({ spread: Math.round(v * 100) / 100 }, joins)}
      />
    </>
  );
}

function PaperControls({
  background,
  onSet
}: {
  background: PaperBackground;
  onSet: (next: Background, joins?: boolean) => void;
}) {
  const set = (part: Partial<PaperBackground>, joins = false) => onSet({ ...background, ...part }, joins);
  return (
    <>
      <Level
        name="Lightness"
        label="Lightness of the paper"
        value={background.lightness}
        range={[0, 100, 1]}
        ticks={LIGHTNESS}
        text={`L* ${background.lightness}`}
        onChange={(lightness, joins) => set({ lightness }, joins)}
      />
      <div className="rows" style={{ marginTop: 8 }}>
        <span>Lighter towards</span>
        <span className="fld">
          <select
            className="grow"
            aria-label="Lighter towards"
            value={background.corner ?? ''}
            onChange={(e) => set({ corner: CORNERS.find((c) => c === e.target.value) ?? null })}
          >
            <option value="">nowhere</option>
            {CORNERS.map((corner) => (
              <option key={corner} value={corner}>
                the {corner}
              </option>
            ))}
          </select>
        </span>
      </div>
      {background.corner ? (
        <Level
          name="By"
          label="How much lighter"
          value={background.fall}
          range={[-40, 40, 1]}
          ticks={FALLS}
          text={`L* ${background.fall > 0 ? '+' : ''}${background.fall}`}
          onChange={(fall, joins) => set({ fall }, joins)}
        />
      ) : null}
      <Level
        name="Texture"
        label="Texture of the paper"
        value={background.grain}
        range={[0, 4, 0.1]}
        ticks={GRAINS}
        text={`L* ${tenth(background.grain)}`}
        onChange={(v, joins) => set({ grain: tenth(v) }, joins)}
      />
    </>
  );
}
