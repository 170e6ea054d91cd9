/** The air of a sky: haze, a veil of cloud over all of it, and heaped clouds with what they do to the sun. */
import { wholeText } from '../../../core/brief/amounts';
import { CUMULUS_DEFAULTS, type SkySurroundings } from '../../../core/brief/brief';
import { CUMULUS_SUNS, type Cumulus } from '../../../core/lights/sky/cumulus';
import { PointerScale } from '../../../ui/pointer-scale';
import { Words } from '../../../ui/words';

interface Props {
  sky: SkySurroundings;
  before: SkySurroundings | null;
  /** What lights the clouds. */
  light: 'sun' | 'moon';
  onSet: (part: Partial<SkySurroundings>, joins?: boolean) => void;
}

const TENTHS = [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1].map((value) => ({
  value,
  strong: value % 0.5 === 0
}));
const SIGHTS = [5, 10, 20, 40, 80, 150].map((value) => ({ value, strong: value === 5 || value === 150 }));
const BASES = [400, 800, 1600, 3200].map((value) => ({ value, strong: true }));
const SUN_NAMES: Record<Cumulus['sun'], string> = {
  free: 'Free',
  behind: 'Behind a cloud',
  'as it comes': 'As it comes'
};
const percent = (share: number) => `${Math.round(share * 100)}\u00a0%`;
const coverOf = (sky: SkySurroundings | null) => sky?.cumulus?.cover ?? 0;

export function AirControls({ sky, before, light, onSet }: Props) {
  const { cumulus } = sky;
  const setHeaps = (part: Partial<Cumulus>, joins = false) =>
    onSet({ cumulus: { ...(cumulus ?? CUMULUS_DEFAULTS), ...part } }, joins);
  return (
    <div className="sec" style={{ display: 'grid', gap: 9 }}>
      <div className="ctl">
        <span className="lab">Haze</span>
        <PointerScale
          label="Haze"
          width={130}
          value={sky.visibility_km}
          min={5}
          max={150}
          step={1}
          logarithmic
          ticks={SIGHTS}
          valueText={`${sky.visibility_km} km sight`}
          was={before?.visibility_km}
          changed={before !== null && before.visibility_km !== sky.visibility_km}
          onChange={(visibility_km, joins) => onSet({ visibility_km }, joins)}
        />
        <span className="n v">{sky.visibility_km}&nbsp;km sight</span>
      </div>
      <div className="ctl">
        <span className="lab">Veil</span>
        <PointerScale
          label="Veil of cloud"
          width={130}
          value={sky.cloud}
          min={0}
          max={1}
          step={0.05}
          ticks={TENTHS}
          valueText={percent(sky.cloud)}
          was={before?.cloud}
          changed={before !== null && before.cloud !== sky.cloud}
          onChange={(cloud, joins) => onSet({ cloud: Math.round(cloud * 100) / 100 }, joins)}
        />
        <span className="n v">{sky.cloud === 1 ? 'overcast' : percent(sky.cloud)}</span>
      </div>
      <div className="ctl">
        <span className="lab">Clouds</span>
        <PointerScale
          label="Clouds"
          width={130}
          value={coverOf(sky)}
          min={0}
          max={0.9}
          step={0.05}
          ticks={TENTHS.slice(0, 10)}
          valueText={coverOf(sky) === 0 ? 'none' : `cover ${percent(coverOf(sky))}`}
          was={before && coverOf(before)}
          changed={before !== null && coverOf(before) !== coverOf(sky)}
          onChange={(v, joins) =>
            v < 0.03 ? onSet({ cumulus: null }, joins) : setHeaps({ cover: Math.round(v * 100) / 100 }, joins)
          }
        />
        <span className="n v">{coverOf(sky) === 0 ? 'none' : percent(coverOf(sky))}</span>
      </div>
      {cumulus ? (
        <>
          <div className="ctl">
            <span className="lab">Their base</span>
            <PointerScale
              label="Base of the clouds"
              width={130}
              value={cumulus.base_m}
              min={300}
              max={4000}
              step={100}
              logarithmic
              ticks={BASES}
              valueText={`${wholeText(cumulus.base_m)} m`}
              was={before?.cumulus?.base_m}
              changed={before?.cumulus != null && before.cumulus.base_m !== cumulus.base_m}
              onChange={(base_m, joins) => setHeaps({ base_m: Math.max(300, base_m) }, joins)}
            />
            <span className="n v">{wholeText(cumulus.base_m)}&nbsp;m</span>
          </div>
          <div className="row">
            <span className="lab">The {light}</span>
            <button
              type="button"
              className="lk act"
              title="The same cover, other clouds"
              onClick={() => setHeaps({ seed: cumulus.seed + 1 })}
            >
              Other clouds
            </button>
          </div>
          <Words
            label={`The ${light} among the clouds`}
            value={cumulus.sun}
            options={CUMULUS_SUNS.map((key) => ({ key, label: SUN_NAMES[key] }))}
            onChoose={(sun) => setHeaps({ sun })}
          />
        </>
      ) : null}
    </div>
  );
}
