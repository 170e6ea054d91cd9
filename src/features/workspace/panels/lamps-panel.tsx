/**
 * The lamps by group, the model's and the picture's own: on or off, dimmed, of another colour or distribution, one
 * alone; and cues, which switch the whole.
 */
import { type Cue, CUES, cueOf, followCue } from '../../../core/brief/cues';
import { capital, evText, kelvinText, percentOf, wholeText } from '../../../core/brief/amounts';
import { type LampSetting, ONLY_SURROUNDINGS, settingOf } from '../../../core/scene/dim-lamps';
import { ADDED_FORMS } from '../../../core/scene/added-lamps';
import { lampGroup, sameGroup } from '../../../core/scene/lamp-groups';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { Brief } from '../../../core/brief/brief';
import { ADDED_FORM_NAMES, newLamp } from '../new-lamp';
import { placesOf, type PanelContext } from '../view';
import { useWorkspaceStore } from '../workspace-store';
import { AddedLampControls } from './added-lamp-controls';
import { KeptList } from './kept-list';
import { LampGroupings } from './lamp-groupings';
import { MeasuredLamps } from './measured-lamps';
import { PhotometryControls } from './photometry-controls';

const CUE_NAMES: Record<Cue, string> = { day: 'Day', evening: 'Evening', night: 'Night' };
const DIM_TICKS = [-5, -4, -3, -2, -1, 0, 1, 2].map((value) => ({ value, strong: value === 0 }));
const KELVINS = [1800, 2700, 4000, 6500, 12_000];
const same = (a: LampSetting, b: LampSetting) =>
  a.on === b.on && a.dim_ev === b.dim_ev && a.kelvin === b.kelvin && a.photometry === b.photometry;

export function LampsPanel(props: PanelContext) {
  const { lamps, picking, onPicking } = props;
  const taken = useWorkspaceStore((s) => s.lampInHand);
  const gathering = useWorkspaceStore((s) => s.gathering);
  const choose = useWorkspaceStore((s) => s.set);
  const { brief, was, view, onChange } = props;
  const choice = brief.lamps;
  const places = placesOf(props.workspace.revision.report);
  const names = lamps.map((l) => l.group);
  // of hidden layers, and not decided on yet
  const asleep = lamps.filter((l) => l.hidden && !choice.groups.some((g) => g.group === l.group));
  const awake = names.filter((n) => !asleep.some((l) => l.group === n));
  const inHand = lamps.find((l) => l.group === taken) ?? lamps[0];
  const own = inHand?.added == null ? null : choice.added[inHand.added]!;
  const write = (part: Partial<Brief['lamps']>, joins = false) => onChange({ lamps: { ...choice, ...part } }, joins);
  const change = (group: string, part: Partial<LampSetting>, joins = false) => {
    const next = { ...settingOf(choice, group, lamps.find((l) => l.group === group)?.hidden), ...part };
    write({ groups: [...choice.groups.filter((g) => g.group !== group), next] }, joins);
  };
  const setting = inHand && settingOf(choice, inHand.group, inHand.hidden);
  const take = (group: string) => {
    choose({ lampInHand: group });
    onPicking(null);
  };
  const gather = (names: string[] | null) => {
    // a place that is asked for would lie over the marks
    onPicking(null);
    choose({ gathering: names });
  };
  const addLamp = (form: (typeof ADDED_FORMS)[number]) => {
    const lamp = newLamp(form, view, choice.added);
    write({ added: [...choice.added, lamp] });
    take(lampGroup(lamp.name));
  };
  const changeOwn = (part: object, joins = false) =>
    write({ added: choice.added.map((l, i) => (i === inHand!.added ? { ...l, ...part } : l)) }, joins);
  const kelvinBefore = inHand && was ? settingOf(was.lamps, inHand.group).kelvin : null;
  return (
    <>
      <div className="row" style={{ paddingBottom: 10 }}>
        <span className="lab">Cue</span>
        <Words
          label="Cue"
          value={cueOf(brief, awake)}
          options={CUES.map((key) => ({ key, label: CUE_NAMES[key] }))}
          onChoose={(cue) => onChange(followCue(brief, cue, awake))}
        />
      </div>
      <div className="sec">
        {lamps.map((l) => {
          const s = settingOf(choice, l.group, l.hidden);
          const changed = was !== null && !same(s, settingOf(was.lamps, l.group, l.hidden));
          const before = was && settingOf(was.lamps, l.group, l.hidden);
          return (
            <div key={l.group} className={`lamprow${l === inHand ? ' on' : ''}${s.on ? '' : ' off'}`}>
              <button type="button" className="who" aria-pressed={l === inHand} onClick={() => take(l.group)}>
                {capital(l.group)}
                <span className="n">
                  {l.kind === 'glowing'
                    ? 'glowing'
                    : l.added !== null && l.count === 1
                      ? ADDED_FORM_NAMES[choice.added[l.added]!.form].toLowerCase()
                      : `${l.count} lamp${l.count === 1 ? '' : 's'}`}
                  {s.kelvin !== null
                    ? `, ${kelvinText(s.kelvin)}`
                    : l.kelvin !== null
                      ? `, ${kelvinText(l.kelvin)}`
                      : ''}
                </span>
              </button>
              <PointerScale
                label={`Dimmer of ${l.group}`}
                width={84}
                value={s.dim_ev}
                min={-5}
                max={2}
                step={0.1}
                ticks={DIM_TICKS}
                valueText={`${percentOf(s.dim_ev)}, ${evText(s.dim_ev)}`}
                was={before?.dim_ev ?? null}
                changed={changed && before?.dim_ev !== s.dim_ev}
                onChange={(v, joins) => change(l.group, { dim_ev: Math.round(v * 10) / 10 }, joins)}
              />
              <span className={`n v${changed ? ' livec' : ''}`} title={evText(s.dim_ev)}>
                {percentOf(s.dim_ev)}
              </span>
              <button
                type="button"
                className="lk act"
                aria-pressed={s.on}
                aria-label={`${l.group}: ${s.on ? 'on' : 'off'}`}
                onClick={() => change(l.group, { on: !s.on })}
              >
                {s.on ? 'on' : 'off'}
              </button>
            </div>
          );
        })}
        {asleep.length > 0 ? (
          <p className="say">
            {asleep.map((l) => capital(l.group)).join(', ')} {asleep.length === 1 ? 'lies' : 'lie'} on a hidden layer of
            the model and {asleep.length === 1 ? 'is' : 'are'} off.{' '}
            <button
              type="button"
              className="lk act"
              onClick={() =>
                write({
                  groups: [...choice.groups, ...asleep.map((l) => ({ ...settingOf(choice, l.group), on: true }))]
                })
              }
            >
              Switch {asleep.length === 1 ? 'it' : 'them'} on
            </button>
          </p>
        ) : null}
        <div className="acts2">
          <span className="note">Add:</span>
          {ADDED_FORMS.map((form) => (
            <button key={form} type="button" className="lk act" onClick={() => addLamp(form)}>
              {ADDED_FORM_NAMES[form]}
            </button>
          ))}
        </div>
      </div>
      {inHand && own ? (
        <AddedLampControls
          key={own.name}
          {...props}
          lamp={own}
          before={was?.lamps.added.find((l) => l.name === own.name) ?? null}
          picking={picking}
          onPicking={onPicking}
          onSet={changeOwn}
          onTakeOut={() => {
            onPicking(null);
            write({
              added: choice.added.filter((_, i) => i !== inHand.added),
              groups: choice.groups.filter((g) => g.group !== inHand.group),
              ...(choice.only === inHand.group ? { only: null } : {})
            });
          }}
        />
      ) : null}
      {inHand && setting && !own ? (
        <div className="sec">
          <div className="row">
            <h3 className="lampname">{capital(inHand.group)}</h3>
            {setting.kelvin !== null ? (
              <button type="button" className="lk act" onClick={() => change(inHand.group, { kelvin: null })}>
                As in the model
              </button>
            ) : null}
          </div>
          <div className="row">
            <span className="lab">Colour</span>
            <span className="n small">
              {setting.kelvin !== null
                ? kelvinText(setting.kelvin)
                : inHand.kelvin !== null
                  ? `${kelvinText(inHand.kelvin)}, as in the model`
                  : 'as in the model'}
            </span>
          </div>
          <PointerScale
            label="Colour"
            value={setting.kelvin ?? inHand.kelvin ?? 4000}
            min={1800}
            max={12_000}
            step={50}
            logarithmic
            ticks={KELVINS.map((value) => ({ value, strong: true, label: wholeText(value) }))}
            valueText={kelvinText(setting.kelvin ?? inHand.kelvin ?? 4000)}
            was={kelvinBefore}
            changed={was !== null && kelvinBefore !== setting.kelvin}
            onChange={(kelvin, joins) => change(inHand.group, { kelvin }, joins)}
          />
          <div className="rows" style={{ marginTop: 8 }}>
            <span>Dimmer</span>
            <NumberField
              label="Dimmer"
              value={setting.dim_ev}
              min={-20}
              max={20}
              digits={1}
              unit="EV"
              onChange={(dim_ev) => change(inHand.group, { dim_ev })}
            />
          </div>
        </div>
      ) : null}
      {inHand?.kind === 'lamps' && setting && inHand.added === null ? (
        <PhotometryControls
          {...props}
          file={setting.photometry}
          without="As in the model"
          onChoose={(file) => change(inHand.group, { photometry: file?.sha256 ?? null })}
        />
      ) : null}
      <div className="sec" style={{ paddingTop: 0 }}>
        <KeptList {...props} kind="cue" title="Saved cues of this project" asks="name this light" />
      </div>
      {places.length > 1 ? (
        <LampGroupings
          places={places}
          regrouped={choice.regrouped}
          gathering={gathering}
          onGathering={gather}
          onRegroup={(regrouped) => write({ regrouped, only: null })}
        />
      ) : null}
      <MeasuredLamps
        {...props}
        groups={names}
        onLeaveOut={(group) => change(names.find((n) => sameGroup(n, group))!, { on: false })}
      />
      <div className="sec">
        <span className="lab">One light at a time</span>
        <div className="list" role="group" aria-label="One light at a time">
          {[
            { key: null, label: 'All lights' },
            { key: ONLY_SURROUNDINGS, label: 'The surroundings alone' },
            ...names.map((n) => ({ key: n, label: `${capital(n)} alone` }))
          ].map(({ key, label }) => (
            <button
              key={key ?? ''}
              type="button"
              aria-pressed={choice.only === key}
              onClick={() => write({ only: key })}
            >
              {label}
            </button>
          ))}
        </div>
      </div>
    </>
  );
}
