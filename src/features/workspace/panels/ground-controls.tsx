/** What the model stands on: nothing, or a ground that only takes its shadow and, polished, mirrors it. */
import { limitsOf } from '../../../core/brief/limits';
import { GROUND_DEFAULTS, type Ground } from '../../../core/brief/brief';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { Level } from './level';

const percent = (v: number) => `${Math.round(v * 100)}\u00a0%`;
const REACHES = [1, 2, 5, 10, 20].map((value) => ({ value, strong: value === 1 || value === 20 }));
const SHARES = [0, 0.25, 0.5, 0.75, 1].map((value) => ({ value, strong: value % 0.5 === 0 }));

export function GroundControls({
  ground,
  before,
  footM,
  studio,
  onChange
}: {
  ground: Ground;
  before: Ground | null;
  /** Where the model's foot lies, m. */
  footM: number;
  studio: boolean;
  onChange: (ground: Ground, joins?: boolean) => void;
}) {
  const was = before?.kind === 'shadow' ? before : null;
  return (
    <div className="sec">
      <span className="lab">Ground</span>
      <Words
        label="Ground"
        value={ground.kind}
        options={[
          { key: 'none', label: studio ? 'The studio’s paper' : 'None' },
          { key: 'shadow', label: 'Shadow only' }
        ]}
        onChoose={(kind) => onChange(kind === 'none' ? { kind } : (was ?? GROUND_DEFAULTS))}
      />
      {ground.kind === 'shadow' ? (
        <>
          <p className="say" style={{ marginTop: 6 }}>
            Only the model’s shadow{ground.polish > 0 ? ' and reflection show' : ' shows'} on the ground. A transparent
            PNG keeps {ground.polish > 0 ? 'both' : 'it'}.
          </p>
          <div style={{ marginTop: 8 }}>
            <Level
              name="Reflection"
              label="Reflection of the ground"
              value={ground.polish}
              range={[0, 1, 0.01]}
              ticks={SHARES}
              text={ground.polish > 0 ? percent(ground.polish) : 'none'}
              was={was?.polish}
              onChange={(polish, joins) => onChange({ ...ground, polish: Math.round(polish * 100) / 100 }, joins)}
            />
            {ground.polish > 0 ? (
              <Level
                name="Roughness"
                label="Roughness of the ground"
                value={ground.roughness}
                range={[0, 1, 0.01]}
                ticks={SHARES}
                text={percent(ground.roughness)}
                was={was?.roughness}
                onChange={(roughness, joins) =>
                  onChange({ ...ground, roughness: Math.round(roughness * 100) / 100 }, joins)
                }
              />
            ) : null}
            <Level
              name="Fades out"
              label="Fades out, in sizes of the model"
              value={ground.reach}
              range={[1, 20, 0.5]}
              logarithmic
              ticks={REACHES}
              text={`at ${ground.reach} ×`}
              was={was?.reach}
              onChange={(reach, joins) => onChange({ ...ground, reach }, joins)}
            />
          </div>
          <div className="rows" style={{ marginTop: 8 }}>
            <span>Height; the model’s foot is at {footM.toFixed(3)}&nbsp;m</span>
            <NumberField
              label="Height of the ground"
              value={ground.height_m}
              none="its foot"
              {...limitsOf('ground.shadow.height_m')}
              digits={3}
              unit="m"
              onChange={(height_m) => onChange({ ...ground, height_m })}
            />
          </div>
        </>
      ) : null}
    </div>
  );
}
