/** What lies around the model and lights it. */
import { limitsOf } from '../../../core/brief/limits';
import { useState } from 'react';
import { evText } from '../../../core/brief/amounts';
import { SURROUNDINGS_DEFAULTS, type Surroundings, type SurroundingsKind } from '../../../core/brief/brief';
import { PLACES } from '../../../core/catalogue/places';
import { resolveSize } from '../../../core/output/size';
import { NumberField } from '../../../ui/number-field';
import { Words } from '../../../ui/words';
import { SURROUNDINGS_COPY } from '../copy';
import type { PanelContext } from '../view';
import { CapturedControls } from './captured-controls';
import { Level } from './level';
import { OpeningControls } from './opening-controls';
import { PlanDial } from './plan-dial';
import { RoomControls } from './room-controls';
import { SkyControls } from './sky-controls';
import { SkyStrengths } from './sky-strengths';
import { StudioControls } from './studio-controls';
import { SunStrike } from './sun-strike';
import { SurroundingsLibrary } from './surroundings-library';

const EV_TICKS = [-3, -2.5, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 2.5, 3].map((value) => ({
  value,
  strong: Number.isInteger(value),
  label: value === -3 ? '−3' : value === 0 ? '0' : value === 3 ? '+3' : undefined
}));

type Props = Pick<
  PanelContext,
  'workspace' | 'brief' | 'was' | 'view' | 'picking' | 'onPicking' | 'onChange' | 'onMessage' | 'onWorkspace'
>;

export function SurroundingsPanel(props: Props) {
  const { workspace, brief, was, view, picking, onPicking, onChange, onMessage, onWorkspace } = props;
  const { min_m: min, max_m: max } = workspace.revision.report;
  const s = brief.surroundings;
  // what was set for a kind comes back when one returns to it
  const [kept, setKept] = useState<Partial<Record<SurroundingsKind, Surroundings>>>({});
  const set = (part: object, joins = false) => onChange({ surroundings: { ...s, ...part } as Surroundings }, joins);
  const choose = (kind: SurroundingsKind) => {
    setKept({ ...kept, [s.kind]: s });
    const place = PLACES[0]!;
    const fresh =
      kind === 'captured'
        ? { ...SURROUNDINGS_DEFAULTS.captured, file: workspace.captured[0]?.sha256 ?? 'none' }
        : kind === 'sky'
          ? { ...SURROUNDINGS_DEFAULTS.sky, latitude_deg: place.latitude_deg, longitude_deg: place.longitude_deg }
          : kind === 'uniform'
            ? { ...SURROUNDINGS_DEFAULTS.uniform, radiance: 1000 }
            : SURROUNDINGS_DEFAULTS[kind];
    onChange({ surroundings: kept[kind] ?? fresh });
  };
  const before = was?.surroundings.kind === s.kind ? was.surroundings : null;
  const sheet = resolveSize(brief.size);
  const brightnessBefore = before && 'brightness_ev' in before ? before.brightness_ev : null;
  const openings = (
    <OpeningControls
      openings={brief.openings}
      picking={picking}
      onPicking={onPicking}
      onSet={(next) => onChange({ openings: next })}
      onMessage={onMessage}
    />
  );
  return (
    <>
      <div style={{ paddingBottom: 11, fontSize: '1rem' }}>
        <Words
          label="Kind of surroundings"
          value={s.kind}
          options={[
            { key: 'sky', label: 'Sky' },
            { key: 'studio', label: 'Studio' },
            { key: 'captured', label: 'Captured' },
            { key: 'room', label: 'Room' },
            { key: 'uniform', label: 'Uniform' }
          ]}
          onChoose={choose}
        />
      </div>
      <SurroundingsLibrary
        workspace={workspace}
        brief={brief}
        onChange={onChange}
        onMessage={onMessage}
        onWorkspace={onWorkspace}
      />
      {s.kind === 'room' ? <RoomControls room={s} onSet={set} /> : null}
      {s.kind === 'sky' ? (
        <SkyControls sky={s} before={before?.kind === 'sky' ? before : null} view={view} onSet={set} />
      ) : null}
      {s.kind === 'studio' ? (
        <StudioControls
          studio={s}
          before={before?.kind === 'studio' ? before : null}
          bounds={{ min, max }}
          view={view}
          picking={picking}
          onPicking={onPicking}
          onSet={set}
        />
      ) : null}
      {s.kind === 'captured' ? (
        <CapturedControls
          workspace={workspace}
          view={view}
          captured={s}
          sheet={{ width: sheet.width_px, height: sheet.height_px }}
          picking={picking}
          onPicking={onPicking}
          onSet={set}
          onMessage={onMessage}
          onWorkspace={onWorkspace}
        />
      ) : null}
      {s.kind === 'uniform' ? (
        <div className="sec">
          <p className="say">The same light from every direction, so shadows have no direction.</p>
          <div className="rows">
            <span>Luminance</span>
            <NumberField
              label="Luminance"
              value={s.radiance}
              {...limitsOf('surroundings.uniform.radiance')}
              unit="cd/m²"
              onChange={(radiance) => set({ radiance })}
            />
          </div>
        </div>
      ) : null}
      {'brightness_ev' in s ? (
        <div className="sec">
          <Level
            name="Brightness"
            label="Brightness"
            value={s.brightness_ev}
            range={[-3, 3, 0.1]}
            ticks={EV_TICKS}
            text={evText(s.brightness_ev)}
            was={brightnessBefore}
            onChange={(v, joins) => set({ brightness_ev: Math.round(v * 10) / 10 }, joins)}
          />
          {'metered' in brief.exposure ? (
            <p className="note">With automatic exposure, brightness shows only in relation to lamps.</p>
          ) : null}
        </div>
      ) : null}
      {s.kind !== 'uniform' ? (
        <div className="sec">
          <PlanDial
            report={workspace.revision.report}
            view={view}
            surroundings={s}
            onTurn={(angle, joins) => set(s.kind === 'sky' ? { north_deg: angle } : { rotation_deg: angle }, joins)}
          />
        </div>
      ) : null}
      {s.kind === 'sky' ? (
        <details className="more">
          <summary>{SURROUNDINGS_COPY.moreOfSky}</summary>
          <SunStrike sky={s} picking={picking} onPicking={onPicking} onSet={set} />
          <SkyStrengths sky={s} before={before?.kind === 'sky' ? before : null} view={view} onSet={set} />
          {openings}
        </details>
      ) : s.kind === 'captured' || s.kind === 'room' ? (
        openings
      ) : null}
    </>
  );
}
