/** The air of a sky: haze, a veil of thin cloud, and cumulus clouds with what they do to the sun. */
import { wholeText } from '../../../core/brief/amounts';
import { CUMULUS_DEFAULTS, type SkySurroundings } from '../../../core/brief/brief';
import { CUMULUS_SUNS, type Cumulus } from '../../../core/lights/sky/cumulus';
import { Words } from '../../../ui/words';
import { Level } from './level';

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
  const setCumulus = (part: Partial<Cumulus>, joins = false) =>
    onSet({ cumulus: { ...(cumulus ?? CUMULUS_DEFAULTS), ...part } }, joins);
  return (
    <div className="sec">
      <Level
        name="Haze"
        label="Haze"
        value={sky.visibility_km}
        range={[5, 150, 1]}
        logarithmic
        ticks={SIGHTS}
        text={`${sky.visibility_km}\u00a0km sight`}
        was={before?.visibility_km}
        onChange={(visibility_km, joins) => onSet({ visibility_km }, joins)}
      />
      <Level
        name="Veil"
        label="Veil of cloud"
        value={sky.cloud}
        range={[0, 1, 0.05]}
        ticks={TENTHS}
        text={sky.cloud === 1 ? 'overcast' : percent(sky.cloud)}
        was={before?.cloud}
        onChange={(cloud, joins) => onSet({ cloud: Math.round(cloud * 100) / 100 }, joins)}
      />
      <Level
        name="Clouds"
        label="Clouds"
        value={coverOf(sky)}
        range={[0, 0.9, 0.05]}
        ticks={TENTHS.slice(0, 10)}
        text={coverOf(sky) === 0 ? 'none' : percent(coverOf(sky))}
        was={before && coverOf(before)}
        onChange={(v, joins) =>
          v < 0.03 ? onSet({ cumulus: null }, joins) : setCumulus({ cover: Math.round(v * 100) / 100 }, joins)
        }
      />
      {cumulus ? (
        <>
          <Level
            name="Base"
            label="Base of the clouds"
            value={cumulus.base_m}
            range={[300, 4000, 100]}
            logarithmic
            ticks={BASES}
            text={`${wholeText(cumulus.base_m)}\u00a0m`}
            was={before?.cumulus?.base_m}
            onChange={(base_m, joins) => setCumulus({ base_m: Math.max(300, base_m) }, joins)}
          />
          <div className="row">
            <span className="lab">The {light}</span>
            <button
              type="button"
              className="lk act"
              title="The same cover, other clouds"
              onClick={() => setCumulus({ seed: cumulus.seed + 1 })}
            >
              Other clouds
            </button>
          </div>
          <Words
            label={`The ${light} among the clouds`}
            value={cumulus.sun}
            options={CUMULUS_SUNS.map((key) => ({ key, label: SUN_NAMES[key] }))}
            onChoose={(sun) => setCumulus({ sun })}
          />
        </>
      ) : null}
    </div>
  );
}
