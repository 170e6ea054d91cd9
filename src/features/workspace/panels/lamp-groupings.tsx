/**
 * How the model's lamps are grouped: by name, by part of the file, by storey, or in a group of one's own, pressed
 * together on the stage.
 */
import { type Grouping, gathered, groupingOf, regroup } from '../../../core/scene/regroup';
import type { LampPlace } from '../../../core/scene/lamp-groups';
import { KeepForm } from '../../../ui/keep-form';
import { Words } from '../../../ui/words';
import type { Regrouped } from '../../../core/scene/dim-lamps';

interface Props {
  places: readonly LampPlace[];
  regrouped: readonly Regrouped[];
  /** Names of the lamps that are being put together; null when none are. */
  gathering: readonly string[] | null;
  onGathering: (names: string[] | null) => void;
  onRegroup: (regrouped: Regrouped[]) => void;
}

const NAMES: Record<Grouping, string> = { name: 'By name', part: 'By part of the file', storey: 'By storey' };

export function LampGroupings({ places, regrouped, gathering, onGathering, onRegroup }: Props) {
  const options = (Object.keys(NAMES) as Grouping[]).filter((by) => by === 'name' || regroup(places, by).length > 0);
  const together = gathering ?? [];
  return (
    <div className="sec">
      <div className="row">
        <span className="lab">Groups of the model’s lamps</span>
        <button
          type="button"
          className="lk act"
          aria-pressed={gathering !== null}
          onClick={() => onGathering(gathering ? null : [])}
        >
          {gathering ? 'Done' : 'Group lamps'}
        </button>
      </div>
      {options.length > 1 ? (
        <Words
          label="Groups"
          value={groupingOf(places, regrouped)}
          options={options.map((key) => ({ key, label: NAMES[key] }))}
          onChoose={(by) => onRegroup(regroup(places, by))}
        />
      ) : null}
      {gathering ? (
        <>
          <p className="say">
            {together.length === 0 ? 'Pick the lamps on the stage, each at its ring.' : `${together.join(', ')}.`}
          </p>
          {together.length > 0 ? (
            <KeepForm
              label="Name of the group"
              placeholder="name of the group"
              onKeep={async (name) => {
                onRegroup(gathered(regrouped, together, name.trim()));
                onGathering(null);
                return true;
              }}
            />
          ) : null}
        </>
      ) : null}
    </div>
  );
}
