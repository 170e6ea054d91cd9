/**
 * Sun, sky and moon apart: each stronger or weaker, warmer or cooler than it truly is; and the whole changed left for
 * right.
 */
import { evText, NBSP } from '../../../core/brief/amounts';
import type { SkySurroundings } from '../../../core/brief/brief';
import type { FreeViewpoint } from '../../../core/camera/viewpoint';
import { MAX_COOL } from '../../../core/color/kelvin';
import { skyLights } from '../../../core/lights/sky/sky-lights';
import { bearingOf } from '../../../core/math/bearing';
import { subtract } from '../../../core/math/vec3';
import { degrees } from '../../../core/units/units';
import { PointerScale } from '../../../ui/pointer-scale';
import { moonSentence, rightOfView } from '../copy';

interface Props {
  sky: SkySurroundings;
  before: SkySurroundings | null;
  view: FreeViewpoint;
  onSet: (part: Partial<SkySurroundings>, joins?: boolean) => void;
}

const STRENGTHS = [-4, -2, 0, 2, 4].map((value) => ({ value, strong: value === 0 }));
const MOON_STRENGTHS = [0, 4, 8, 12].map((value) => ({ value, strong: value === 0 }));
const WARMTHS = [-80, -40, 0, 40, 80, 120].map((value) => ({ value, strong: value === 0 }));
const strength = (ev: number) => (ev === 0 ? 'natural' : evText(ev));
const warmth = (mired: number) => (mired === 0 ? 'natural' : `${Math.abs(mired)} ${mired > 0 ? 'warmer' : 'cooler'}`);
// The sun so low that the moon counts.
const MOONLIT_DEG = -6;
// Raised by this a full moon is as bright as a well-lit street, about 20 lx (common practice, no source).
const MOON_OFFER_EV = 6;

const SOURCES = [
  { name: 'Sun', ev: 'sun_ev', warmth: 'sun_warmth' },
  { name: 'Sky', ev: 'sky_ev', warmth: 'sky_warmth' },
  { name: 'Moon', ev: 'moon_ev', warmth: 'moon_warmth' }
] as const;

export function SkyStrengths({ sky, before, view, onSet }: Props) {
  const lights = skyLights(sky);
  const dark = degrees(lights.sun.elevation) < MOONLIT_DEG;
  const moonUp = lights.moon.elevation > 0;
  const heading = Math.round(bearingOf(subtract(view.target_m, view.position_m)));
  const shown = SOURCES.filter(({ name }) => (name === 'Moon' ? dark && moonUp : name === 'Sun' ? !dark : true));
  return (
    <div className="sec" style={{ display: 'grid', gap: 9 }}>
      <span className="lab">Sun and sky compared with nature: strength, warmth in mired</span>
      {shown.map((source) => {
        const ev = sky[source.ev];
        const moon = source.name === 'Moon';
        return (
          <div key={source.name} className="ctl pair">
            <span className="lab">{source.name}</span>
            <span>
              <PointerScale
                label={`Strength of the ${source.name.toLowerCase()}`}
                width={96}
                value={ev}
                min={moon ? -2 : -4}
                max={moon ? 14 : 4}
                step={0.1}
                ticks={moon ? MOON_STRENGTHS : STRENGTHS}
                valueText={strength(ev)}
                was={before?.[source.ev] ?? null}
                changed={before !== null && before[source.ev] !== ev}
                onChange={(v, joins) => onSet({ [source.ev]: Math.round(v * 10) / 10 }, joins)}
              />
              <span className="n note">{strength(ev)}</span>
            </span>
            <span>
              <PointerScale
                label={`Warmth of the ${source.name.toLowerCase()}`}
                width={96}
                value={sky[source.warmth]}
                min={MAX_COOL}
                max={120}
                step={5}
                ticks={WARMTHS}
                valueText={warmth(sky[source.warmth])}
                was={before?.[source.warmth] ?? null}
                changed={before !== null && before[source.warmth] !== sky[source.warmth]}
                onChange={(v, joins) => onSet({ [source.warmth]: v }, joins)}
              />
              <span className="n note">{warmth(sky[source.warmth])}</span>
            </span>
          </div>
        );
      })}
      {dark ? (
        <p className="say">
          {moonSentence(lights.moon, rightOfView(lights.moon.direction, view))}
          {moonUp && sky.moon_ev === 0 ? (
            <>
              {' '}
              Beside lamps that shows nothing.{' '}
              <button type="button" className="lk act" onClick={() => onSet({ moon_ev: MOON_OFFER_EV })}>
                Raise it by {MOON_OFFER_EV}
                {NBSP}EV
              </button>
            </>
          ) : moonUp && sky.moon_ev > 0 ? (
            ` Raised ${Math.round(2 ** sky.moon_ev)} times.`
          ) : (
            ''
          )}
        </p>
      ) : null}
      <div className="row">
        <span className="note">{sky.mirror_deg === null ? '' : 'Mirrored left to right.'}</span>
        <button
          type="button"
          className="lk act"
          aria-pressed={sky.mirror_deg !== null}
          title="About the direction in which the picture looks now"
          onClick={() => onSet({ mirror_deg: sky.mirror_deg === null ? heading : null })}
        >
          {sky.mirror_deg === null ? 'Mirror left and right' : 'Mirror back'}
        </button>
      </div>
    </div>
  );
}
