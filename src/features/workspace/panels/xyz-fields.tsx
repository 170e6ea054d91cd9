/** Three numbers along the axes in a row, behind what they are. */
import { NumberField } from '../../../ui/number-field';
import { POSE_COPY as COPY } from '../copy';

interface Props {
  name: string;
  /** One for each axis. */
  labels: readonly string[];
  unit: string;
  min: number;
  max: number;
  value: readonly number[];
  /** Of one axis; the others stay as they are, however they are shown. */
  onChange: (axis: number, value: number) => void;
}

/** What the columns are, above the rows. */
export function AxisNames() {
  return (
    <>
      <span />
      {COPY.axes.map((axis) => (
        <span key={axis} className="note" aria-hidden>
          {axis}
        </span>
      ))}
    </>
  );
}

export function XyzFields({ name, labels, unit, min, max, value, onChange }: Props) {
  return (
    <>
      <span className="lab">{name}</span>
      {labels.map((label, k) => (
        <NumberField
          key={label}
          label={label}
          unit={unit}
          min={min}
          max={max}
          value={value[k]!}
          onChange={(v) => onChange(k, v)}
        />
      ))}
    </>
  );
}
