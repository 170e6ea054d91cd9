/** What is done to a film for display: adjusted at once, by the film alone; nothing is rendered again. */
import { useRef, useState } from 'react';
import { evText } from '../../../core/brief/amounts';
import { BRIEF_DEFAULTS, type Finish } from '../../../core/brief/brief';
import { limitsOf } from '../../../core/brief/limits';
import { TONE_CHARACTER_NOTES, TONE_CHARACTERS, type ToneCharacter } from '../../../core/catalogue/tone-characters';
import type { Proposal } from '../../../core/finishing/propose';
import { BringIn } from '../../../ui/bring-in';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import { bringIn, send } from '../../shared/send';
import type { ProofDto } from '../../../contracts/dto';
import { PRESS_COPY } from '../copy';
import { FINISH_COPY as COPY } from '../finish/copy';
import { Histogram } from '../finish/histogram';
import type { PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';
import { Level } from './level';
import { MaskControls } from './mask-controls';
import { PressProfiles } from './press-profiles';
import { ShownBeside } from './shown-beside';
import { WhiteControls } from './white-controls';

type Props = Pick<
  PanelContext,
  | 'workspace'
  | 'proofs'
  | 'brief'
  | 'was'
  | 'shown'
  | 'picture'
  | 'picking'
  | 'finishing'
  | 'onPicking'
  | 'onChange'
  | 'onMessage'
  | 'onWorkspace'
>;

const STOPS = [-3, -2, -1, 0, 1, 2, 3].map((value) => ({
  value,
  strong: true,
  label: value > 0 ? `+${value}` : value < 0 ? `−${-value}` : '0'
}));
const ends = (min: number, max: number) =>
  [min, (min + max) / 2, max].map((value) => ({ value, strong: value === 0 || (min === 0 && value === min) }));
const BALANCE = ends(-1, 1);
const AMOUNT = ends(0, 1);
const CHARACTERS = TONE_CHARACTERS.map((key) => ({ key, label: TONE_CHARACTER_NOTES[key].name }));
const TEXTURES = (['none', 'film', 'paper'] as const).map((key) => ({ key, label: COPY.textures[key] }));
const DEFAULTS = BRIEF_DEFAULTS.finish;
const FILTER = '#ffb46e';

type Part = 'tone' | 'color' | 'lens' | 'surface';

export function FinishPanel(props: Props) {
  const { workspace, proofs, brief, was, shown, picture, picking, finishing, onPicking, onChange, onMessage } = props;
  const { press } = finishing;
  const [proposal, setProposal] = useState<Proposal | null>(null);
  const [given, setGiven] = useState<string | null>(null);
  const chooseProof = useWorkspaceStore((state) => state.chooseProof);
  const addProof = useWorkspaceStore((state) => state.addProof);
  const openPanel = useWorkspaceStore((state) => state.openPanel);
  const { finish } = brief;
  const before = was?.finish ?? null;
  const set = (part: Partial<Finish>, joins = false) => onChange({ finish: { ...finish, ...part } }, joins);
  const draggedFilter = useRef(false);
  const setIn = <P extends Part>(part: P, change: Partial<Finish[P]>, joins = false) =>
    set({ [part]: { ...finish[part], ...change } } as Partial<Finish>, joins);
  /** A slider of a number in a part. */
  const slider = <P extends Part, K extends keyof Finish[P] & string>(
    part: P,
    key: K,
    name: string,
    text: (value: number) => string,
    range: readonly [number, number, number] = [-1, 1, 0.01],
    ticks = range[0] === 0 ? AMOUNT : BALANCE
  ) => {
    const value = finish[part][key] as number;
    return (
      <Level
        name={name}
        label={name}
        value={value}
        range={range}
        ticks={range[0] === -1 || range[1] === 1 ? ticks : ends(range[0], range[1])}
        text={text(value)}
        was={before && (before[part][key] as number)}
        initial={DEFAULTS[part][key] as number}
        onChange={(v, joins) => setIn(part, { [key]: Math.round(v * 1000) / 1000 } as Partial<Finish[P]>, joins)}
      />
    );
  };
  const percent = (value: number) => COPY.percent(value);
  const share = (value: number) => (value === 0 ? 'none' : COPY.percent(value).replace('+', ''));
  const lightness = (value: number) => `${Math.round(value)} L*`;
  const { tone, color, surface } = finish;

  if (finishing.state === 'none')
    return <p className="say">{shown && shown.picture_count > 0 ? COPY.running(shown.number) : COPY.none}</p>;

  const meter = async () => {
    const found = await finishing.propose();
    if (found) setProposal(found);
    else onMessage(COPY.meterNothing);
  };
  const keep = async () => {
    const sent = await send<ProofDto>('POST', `/api/pictures/${picture.id}/proofs`, { of: shown!.id });
    if (!sent.ok) return onMessage(sent.message);
    addProof(sent.value);
    chooseProof(sent.value.id);
  };
  const bringTable = async (file: File, onShare: (share: number) => void) => {
    const made = await bringIn<{ file: string; name: string }>('/api/tables', file, onShare);
    if (!made.ok) return onMessage(made.message);
    onMessage(null);
    set({ table: { ...made.value, amount: 1 } });
  };
  const give = async () => {
    const sent = await send<{ pictures: number }>('POST', `/api/pictures/${picture.id}/finish`);
    if (sent.ok) setGiven(COPY.gave(sent.value.pictures));
    else onMessage(sent.message);
  };
  const ev = limitsOf('finish.exposure_ev');
  return (
    <>
      {finishing.fault ? (
        <p className="say" role="alert">
          {COPY.fault(finishing.fault)}
        </p>
      ) : finishing.state === 'opening' ? (
        <p className="say" role="status">
          {COPY.opening}
        </p>
      ) : null}
      <Histogram now={finishing.histogram} before={finishing.before} />
      <div className="sec">
        <div className="row">
          <button type="button" className="lk act" title={COPY.meterHint} onClick={() => void meter()}>
            {COPY.meter}
          </button>
          <button
            type="button"
            className="lk"
            title={COPY.asRenderedHint}
            onClick={() => {
              const { denoise, denoise_meanwhile, background } = finish;
              set({ ...DEFAULTS, denoise, denoise_meanwhile, background });
            }}
          >
            {COPY.asRendered}
          </button>
        </div>
        {proposal ? (
          <p className="say" role="status">
            {COPY.meterSays(proposal)}{' '}
            <button
              type="button"
              className="lk act"
              onClick={() => {
                set(proposal.changes);
                setProposal(null);
              }}
            >
              {COPY.take}
            </button>{' '}
            <button type="button" className="lk" onClick={() => setProposal(null)}>
              {COPY.leave}
            </button>
          </p>
        ) : null}
      </div>
      <div className="sec">
        <div className="row">
          <span className="lab">{COPY.exposure}</span>
          <span className={`n${before && before.exposure_ev !== finish.exposure_ev ? ' livec' : ''}`}>
            {evText(finish.exposure_ev)}
          </span>
        </div>
        <PointerScale
          label={COPY.exposure}
          value={finish.exposure_ev}
          min={Math.max(-3, ev.min)}
          max={Math.min(3, ev.max)}
          step={0.05}
          initial={0}
          ticks={STOPS}
          valueText={evText(finish.exposure_ev)}
          was={before?.exposure_ev ?? null}
          changed={before !== null && before.exposure_ev !== finish.exposure_ev}
          onChange={(v, joins) => set({ exposure_ev: Math.round(v * 100) / 100 }, joins)}
        />
      </div>
      <div className="sec">
        <label className="row">
          <span className="lab">{COPY.tones}</span>
          <select
            className="fld"
            aria-label={COPY.character}
            title={TONE_CHARACTER_NOTES[tone.curve].says}
            value={tone.curve}
            onChange={(e) => setIn('tone', { curve: e.target.value as ToneCharacter })}
          >
            {CHARACTERS.map(({ key, label }) => (
              <option key={key} value={key}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <p className="note">{TONE_CHARACTER_NOTES[tone.curve].says}</p>
        {slider('tone', 'contrast', COPY.contrast, percent)}
        {slider('tone', 'highlights', COPY.highlights, percent)}
        {slider('tone', 'shadows', COPY.shadows, percent)}
        {slider('tone', 'black', COPY.black, lightness, [-20, 20, 0.5])}
        {slider('tone', 'white', COPY.white, lightness, [80, 110, 0.5])}
      </div>
      <WhiteControls
        finish={finish}
        before={before}
        picking={picking}
        onPicking={onPicking}
        onChange={onChange}
        onMessage={onMessage}
      />
      <div className="sec">
        <span className="lab">{COPY.colours}</span>
        {slider('color', 'saturation', COPY.saturation, percent)}
        {slider('color', 'vibrance', COPY.vibrance, percent)}
        {slider('color', 'bleach', COPY.bleach, share, [0, 1, 0.01])}
        <label className="row">
          <span>{COPY.filter}</span>
          <span className="row">
            {color.filter !== null ? (
              <input
                type="color"
                aria-label={COPY.filter}
                value={color.filter}
                // a step of its own, however many colours a drag passes
                onFocus={() => {
                  draggedFilter.current = false;
                }}
                onChange={(e) => {
                  setIn('color', { filter: e.target.value }, draggedFilter.current);
                  draggedFilter.current = true;
                }}
              />
            ) : null}
            <input
              type="checkbox"
              className="toggle toggle-sm"
              aria-label={COPY.filterOn}
              checked={color.filter !== null}
              onChange={(e) => setIn('color', { filter: e.target.checked ? FILTER : null })}
            />
          </span>
        </label>
        {color.filter !== null ? slider('color', 'filter_strength', COPY.strength, share, [0, 1, 0.01]) : null}
      </div>
      <div className="sec">
        <div className="row">
          <span className="lab">{COPY.table}</span>
          {finish.table ? (
            <button type="button" className="lk" onClick={() => set({ table: null })}>
              {COPY.remove}
            </button>
          ) : null}
        </div>
        {finish.table ? (
          <>
            <p className="note">{finish.table.name}</p>
            <Level
              name={COPY.strength}
              label={COPY.tableAmount}
              value={finish.table.amount}
              range={[0, 1, 0.01]}
              ticks={AMOUNT}
              text={share(finish.table.amount)}
              was={before?.table?.amount ?? null}
              initial={1}
              onChange={(v, joins) => set({ table: { ...finish.table!, amount: Math.round(v * 100) / 100 } }, joins)}
            />
          </>
        ) : (
          <BringIn label={COPY.chooseTable} accept=".cube" word={COPY.bringTable} onFile={bringTable} />
        )}
      </div>
      <div className="sec">
        <span className="lab">{COPY.lens}</span>
        {slider('lens', 'glow', COPY.glow, share, [0, 0.5, 0.005])}
        {slider('lens', 'vignette_ev', COPY.vignette, (v) => (v === 0 ? 'none' : evText(-v)), [-3, 3, 0.05])}
        {slider('lens', 'streaks', COPY.streaks, share, [0, 1, 0.01])}
        {slider('lens', 'ghosts', COPY.ghosts, share, [0, 1, 0.01])}
      </div>
      <MaskControls
        brief={brief}
        finishing={finishing}
        picking={picking}
        onPicking={onPicking}
        onChange={onChange}
        onMessage={onMessage}
      />
      <div className="sec">
        <span className="lab">{COPY.surface}</span>
        {slider('surface', 'sharpen', COPY.sharpen, share, [0, 2, 0.02])}
        {surface.sharpen > 0
          ? slider('surface', 'sharpen_px', COPY.radius, (v) => `${v.toFixed(1)} px`, [0.4, 6, 0.1])
          : null}
        <div className="row">
          <span>{COPY.texture}</span>
          <Words
            label={COPY.texture}
            value={surface.texture}
            options={TEXTURES}
            onChoose={(texture) => setIn('surface', { texture })}
          />
        </div>
        {surface.texture === 'none'
          ? null
          : slider('surface', 'texture_amount', COPY.textureAmount, (v) => `${v.toFixed(1)} L*`, [0, 10, 0.1])}
        {finishing.film && !finishing.film.denoised ? (
          <p className="note">{COPY.denoiseNone}</p>
        ) : (
          <>
            <Level
              name={COPY.denoise}
              label={COPY.denoise}
              value={finish.denoise}
              range={[0, 1, 0.01]}
              ticks={AMOUNT}
              text={share(finish.denoise)}
              was={before?.denoise ?? null}
              initial={1}
              onChange={(v, joins) => set({ denoise: Math.round(v * 100) / 100 }, joins)}
            />
            {finishing.film?.luminanceRatio && Math.abs(finishing.film.luminanceRatio - 1) > 0.01 ? (
              <p className="note" role="status">
                {COPY.denoiseShift(finishing.film.luminanceRatio)}
              </p>
            ) : null}
          </>
        )}
      </div>
      <div className="sec">
        <span className="lab">{COPY.press}</span>
        <PressProfiles
          workspace={workspace}
          chosen={press?.profile ?? null}
          without={PRESS_COPY.none}
          onChoose={(profile) => finishing.onPress(profile === null ? null : { profile, marks: press?.marks ?? false })}
          onWorkspace={props.onWorkspace}
          onMessage={onMessage}
        />
        {press ? (
          <>
            <label className="row">
              <span>{COPY.pressMarks}</span>
              <input
                type="checkbox"
                className="toggle toggle-sm"
                checked={press.marks}
                onChange={(e) => finishing.onPress({ ...press, marks: e.target.checked })}
              />
            </label>
            <p className="note" role="status">
              {COPY.pressLost(finishing.lostShare)}
            </p>
          </>
        ) : null}
      </div>
      <div className="sec">
        <div className="row">
          <button type="button" className="lk act" title={COPY.keepSays} onClick={() => void keep()}>
            {COPY.keep}
          </button>
          <button type="button" className="lk act" title={COPY.filesSays} onClick={() => openPanel('files')}>
            {COPY.files}
          </button>
        </div>
        <ShownBeside workspace={workspace} picture={picture} proofs={proofs} shown={shown} />
        <p className="lk-row">
          <button type="button" className="lk" title={COPY.giveSays} onClick={() => void give()}>
            {COPY.give}
          </button>
        </p>
        {given === null ? null : (
          <p className="note" role="status">
            {given}
          </p>
        )}
      </div>
    </>
  );
}
