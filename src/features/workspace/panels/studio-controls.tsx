/**
 * A studio's set and lamps: which are lit, how strong against the key, and for the one in hand where it stands, how
 * large and of what colour.
 */
import { limitsOf } from '../../../core/brief/limits';
import { useState } from 'react';
import { capital, evText, kelvinText, NBSP, wholeText } from '../../../core/brief/amounts';
import type { StudioSurroundings } from '../../../core/brief/brief';
import {
  LAMP_FORMS,
  type LampForm,
  lumenFor,
  lampLuminance,
  standForReflection,
  type StudioLamp
} from '../../../core/lights/studio/lamp';
import { BACKDROPS, STUDIO_SET_KEYS, STUDIO_SETS } from '../../../core/lights/studio/sets';
import { lampsOf, modelMiddle, modelSize } from '../../../core/lights/studio/studio';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import type { Vec3 } from '../../../core/math/vec3';
import { NumberField } from '../../../ui/number-field';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';
import type { Picking } from '../view';
import { tintText } from './white-controls';

interface Props {
  studio: StudioSurroundings;
  before: StudioSurroundings | null;
  bounds: { min: Vec3; max: Vec3 };
  view: FreeViewpoint;
  picking: Picking | null;
  onPicking: (picking: Picking | null) => void;
  onSet: (part: Partial<StudioSurroundings>, joins?: boolean) => void;
}

const KELVINS = [1800, 2700, 4000, 5500, 8000, 12_000];
const AGAINST = [-6, -4, -2, 0, 2].map((value) => ({ value, strong: value === 0 }));
const FORM_NAMES: Record<LampForm, string> = { softbox: 'Softbox', strip: 'Strip', ring: 'Ring', window: 'Window' };
const BACKDROP_NAMES = { bowl: 'Endless', sweep: 'Paper roll', none: 'None' } as const;
// Finer than a hand can place and coarse enough to read.
const mm = (m: number) => Math.round(m * 1000) / 1000;
const degree = (d: number) => Math.round(d * 10) / 10;

/** What a lamp brings to the model's middle, up to a factor: flux over the square of its distance. */
const brings = (l: StudioLamp) => l.lumen / l.distance_m ** 2;

const rounded = (l: StudioLamp): StudioLamp => ({
  ...l,
  azimuth_deg: degree(l.azimuth_deg),
  elevation_deg: degree(l.elevation_deg),
  distance_m: mm(l.distance_m),
  width_m: mm(l.width_m),
  height_m: mm(l.height_m),
  lumen: Math.round(l.lumen * 100) / 100
});

export function StudioControls({ studio, before, bounds, view, picking, onPicking, onSet }: Props) {
  const [chosen, setChosen] = useState(0);
  const lamps = lampsOf(studio, bounds);
  const lampsBefore = before ? lampsOf(before, bounds) : null;
  const index = Math.min(chosen, lamps.length - 1);
  const lamp = lamps[index] as StudioLamp | undefined;
  const key = lamps.find((l) => l.role === 'key') ?? lamps[0];
  const write = (next: readonly StudioLamp[], joins = false) => onSet({ lamps: next.map(rounded) }, joins);
  const change = (i: number, part: Partial<StudioLamp>, joins = false) =>
    write(
      lamps.map((l, k) => (k === i ? { ...l, ...part } : l)),
      joins
    );
  const against = (l: StudioLamp) => (key ? Math.log2(brings(l) / brings(key)) : 0);
  const place = (point: Vec3, normal: Vec3, joins: boolean) => {
    if (!lamp) return;
    const stands = standForReflection(view.position_m, point, normal, modelMiddle(bounds), lamp.distance_m);
    // the studio is turned as a whole, so its lamps' own angles are less by that
    if (stands)
      change(
        index,
        {
          azimuth_deg: stands.azimuth_deg - studio.rotation_deg,
          elevation_deg: Math.max(-89, Math.min(89, stands.elevation_deg))
        },
        joins
      );
  };
  const add = () => {
    const size = modelSize(bounds);
    const shape = { form: 'softbox' as const, width_m: size, height_m: size };
    const luminance = key ? lampLuminance(key) / 2 : 4000;
    write([
      ...lamps,
      {
        name: `Lamp ${lamps.length + 1}`,
        role: 'accent',
        ...shape,
        on: true,
        azimuth_deg: 90,
        elevation_deg: 30,
        distance_m: 2.5 * size,
        turn_deg: 0,
        kelvin: 5500,
        tint: 0,
        lumen: lumenFor(luminance, shape)
      }
    ]);
    setChosen(lamps.length);
  };
  const placing = picking?.asks === 'reflection';
  const contrast = contrastOf(lamps);
  return (
    <>
      <div className="sec">
        <span className="lab">Start from</span>
        <div className="list two-up" role="group" aria-label="Studio sets">
          {STUDIO_SET_KEYS.map((k) => (
            <button
              key={k}
              type="button"
              aria-pressed={studio.set === k && studio.lamps === null}
              title={STUDIO_SETS[k].says}
              onClick={() => {
                setChosen(0);
                onSet({ set: k, lamps: null, backdrop: null, paper: null });
              }}
            >
              {capital(STUDIO_SETS[k].name)}
            </button>
          ))}
        </div>
        <p className="say" style={{ marginTop: 6 }}>
          {studio.lamps === null
            ? STUDIO_SETS[studio.set].says
            : `Arranged by you, from “${STUDIO_SETS[studio.set].name}”. The set above brings its own back.`}
        </p>
      </div>
      <div className="sec lamps">
        <div className="row">
          <span className="lab">Lamps</span>
          <span className="note">light on the model against the key</span>
        </div>
        {lamps.map((l, i) => {
          const was = lampsBefore?.[i] ?? null;
          const changed = lampsBefore !== null && JSON.stringify(was && rounded(was)) !== JSON.stringify(rounded(l));
          const ev = Math.round(against(l) * 10) / 10;
          return (
            <div key={`${l.name}${i}`} className={`lamprow${i === index ? ' on' : ''}${l.on ? '' : ' off'}`}>
              <button type="button" className="who" aria-pressed={i === index} onClick={() => setChosen(i)}>
                {l.name}
                <span className="n">
                  {FORM_NAMES[l.form].toLowerCase()}, {kelvinText(l.kelvin)}
                </span>
              </button>
              {l === key ? (
                <span className="note n keynote">
                  key, {wholeText(l.lumen)}
                  {NBSP}lm
                </span>
              ) : (
                <>
                  <PointerScale
                    label={`${l.name} against the key`}
                    width={84}
                    value={Math.max(-7, Math.min(3, ev))}
                    min={-7}
                    max={3}
                    step={0.1}
                    ticks={AGAINST}
                    valueText={evText(ev)}
                    changed={changed}
                    onChange={(v, joins) => change(i, { lumen: l.lumen * 2 ** (v - against(l)) }, joins)}
                  />
                  <span className={`n v${changed ? ' livec' : ''}`}>{evText(ev)}</span>
                </>
              )}
              <button
                type="button"
                className="lk act"
                aria-pressed={l.on}
                aria-label={`${l.name}: ${l.on ? 'on' : 'off'}`}
                onClick={() => change(i, { on: !l.on })}
              >
                {l.on ? 'on' : 'off'}
              </button>
            </div>
          );
        })}
        <div className="acts2">
          <button type="button" className="lk act" onClick={add}>
            Add a lamp
          </button>
          {lamp && lamps.length > 1 ? (
            <button type="button" className="lk act" onClick={() => write(lamps.filter((_, i) => i !== index))}>
              Remove {lamp.name}
            </button>
          ) : null}
        </div>
      </div>
      {contrast ? (
        <div className="sec">
          <div className="row">
            <span className="lab">Warm against cool</span>
            <span className="n small">{contrast.text}</span>
          </div>
          <PointerScale
            label="Warm against cool"
            value={contrast.mired}
            min={0}
            max={250}
            step={10}
            ticks={[0, 50, 100, 150, 200, 250].map((value) => ({ value, strong: value % 100 === 0 }))}
            valueText={contrast.text}
            onChange={(v, joins) => write(spread(lamps, v), joins)}
          />
          <p className="note">Key and fill drawn apart in colour, one as much warmer as the other is cooler.</p>
        </div>
      ) : null}
      {lamp ? (
        <div className="sec">
          <div className="row">
            <h3 className="lampname">{lamp.name}</h3>
            <button
              type="button"
              className="lk act"
              aria-pressed={placing}
              onClick={() =>
                onPicking(
                  placing
                    ? null
                    : {
                        asks: 'reflection',
                        says: `Pick where the reflection of ${lamp.name} should appear; drag to move it.`,
                        onPick: place
                      }
                )
              }
            >
              {placing ? 'Done' : 'Place by its reflection'}
            </button>
          </div>
          <Words
            label="Form"
            value={lamp.form}
            options={LAMP_FORMS.map((form) => ({ key: form, label: FORM_NAMES[form] }))}
            onChoose={(form) => change(index, { form, lumen: lumenFor(lampLuminance(lamp), { ...lamp, form }) })}
          />
          <div className="rows" style={{ marginTop: 8 }}>
            <span>{lamp.form === 'ring' ? 'Diameter' : 'Width'}</span>
            <NumberField
              label="Width"
              value={lamp.width_m}
              {...limitsOf('surroundings.studio.lamps.width_m')}
              digits={2}
              unit="m"
              onChange={(width_m) => change(index, { width_m })}
            />
            {lamp.form === 'ring' ? null : (
              <>
                <span>Height</span>
                <NumberField
                  label="Height"
                  value={lamp.height_m}
                  {...limitsOf('surroundings.studio.lamps.height_m')}
                  digits={2}
                  unit="m"
                  onChange={(height_m) => change(index, { height_m })}
                />
              </>
            )}
            <span>Distance</span>
            <NumberField
              label="Distance"
              value={lamp.distance_m}
              {...limitsOf('surroundings.studio.lamps.distance_m')}
              digits={2}
              unit="m"
              onChange={(distance_m) => change(index, { distance_m })}
            />
            <span>Angle, 0 in front</span>
            <NumberField
              label="Angle"
              value={lamp.azimuth_deg}
              {...limitsOf('surroundings.studio.lamps.azimuth_deg')}
              digits={0}
              unit="°"
              onChange={(azimuth_deg) => change(index, { azimuth_deg })}
            />
            <span>Elevation</span>
            <NumberField
              label="Elevation"
              value={lamp.elevation_deg}
              {...limitsOf('surroundings.studio.lamps.elevation_deg')}
              digits={0}
              unit="°"
              onChange={(elevation_deg) => change(index, { elevation_deg })}
            />
            <span>Roll</span>
            <NumberField
              label="Roll"
              value={lamp.turn_deg}
              {...limitsOf('surroundings.studio.lamps.turn_deg')}
              digits={0}
              unit="°"
              onChange={(turn_deg) => change(index, { turn_deg })}
            />
            <span>Output</span>
            <NumberField
              label="Output"
              value={lamp.lumen}
              {...limitsOf('surroundings.studio.lamps.lumen')}
              digits={0}
              unit="lm"
              onChange={(lumen) => change(index, { lumen })}
            />
          </div>
          <div className="row" style={{ marginTop: 10 }}>
            <span className="lab">Colour</span>
            <span className="n small">{kelvinText(lamp.kelvin)}</span>
          </div>
          <PointerScale
            label="Colour"
            value={lamp.kelvin}
            min={1800}
            max={12_000}
            step={50}
            logarithmic
            ticks={KELVINS.map((value) => ({ value, strong: true, label: wholeText(value) }))}
            valueText={kelvinText(lamp.kelvin)}
            was={lampsBefore?.[index]?.kelvin ?? null}
            changed={lampsBefore !== null && lampsBefore[index]?.kelvin !== lamp.kelvin}
            onChange={(kelvin, joins) => change(index, { kelvin }, joins)}
          />
          <div className="ctl" style={{ marginTop: 6 }}>
            <span className="lab">Tint</span>
            <PointerScale
              label="Tint"
              width={130}
              value={lamp.tint}
              min={-2}
              max={2}
              step={0.1}
              ticks={[-2, -1, 0, 1, 2].map((value) => ({ value, strong: value === 0 }))}
              valueText={tintText(lamp.tint)}
              onChange={(tint, joins) => change(index, { tint: Math.round(tint * 10) / 10 }, joins)}
            />
            <span className="n v">{tintText(lamp.tint)}</span>
          </div>
        </div>
      ) : null}
      <div className="sec">
        <span className="lab">Backdrop</span>
        <Words
          label="Backdrop"
          value={studio.backdrop ?? STUDIO_SETS[studio.set].backdrop}
          options={BACKDROPS.map((b) => ({ key: b, label: BACKDROP_NAMES[b] }))}
          onChoose={(backdrop) => onSet({ backdrop })}
        />
        <div className="ctl" style={{ marginTop: 8 }}>
          <span className="lab">Paper</span>
          <PointerScale
            label="Paper"
            width={130}
            value={studio.paper ?? STUDIO_SETS[studio.set].paper}
            min={0.02}
            max={0.9}
            step={0.01}
            ticks={[0.02, 0.2, 0.4, 0.6, 0.8].map((value) => ({ value, strong: value === 0.02 }))}
            valueText={`gives back ${Math.round((studio.paper ?? STUDIO_SETS[studio.set].paper) * 100)} %`}
            onChange={(v, joins) => onSet({ paper: Math.round(v * 100) / 100 }, joins)}
          />
          <span className="n v">
            {Math.round((studio.paper ?? STUDIO_SETS[studio.set].paper) * 100)}
            {NBSP}%
          </span>
        </div>
      </div>
    </>
  );
}

const MIRED = 1e6;
const clampKelvin = (k: number) => Math.round(Math.min(12_000, Math.max(1800, k)) / 50) * 50;

/** How far apart key and fill stand in colour, in mired: equal steps of it look equal. Null without both. */
function contrastOf(lamps: readonly StudioLamp[]): { mired: number; text: string } | null {
  const key = lamps.find((l) => l.role === 'key');
  const fill = lamps.find((l) => l.role === 'fill');
  if (!key || !fill) return null;
  return {
    mired: Math.round(Math.abs(MIRED / key.kelvin - MIRED / fill.kelvin)),
    text: `${wholeText(key.kelvin)} to ${wholeText(fill.kelvin)}${NBSP}K`
  };
}

/** Key and fill drawn apart to this many mired about their mean; the warmer one stays the warmer. */
function spread(lamps: readonly StudioLamp[], mired: number): StudioLamp[] {
  const key = lamps.find((l) => l.role === 'key')!;
  const fill = lamps.find((l) => l.role === 'fill')!;
  const mean = (MIRED / key.kelvin + MIRED / fill.kelvin) / 2;
  const warm = key.kelvin <= fill.kelvin ? key : fill;
  return lamps.map((l) =>
    l === key || l === fill ? { ...l, kelvin: clampKelvin(MIRED / (mean + (l === warm ? mired : -mired) / 2)) } : l
  );
}
