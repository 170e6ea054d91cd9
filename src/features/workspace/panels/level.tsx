/** A named pointer scale with its value at the right. */
import { PointerScale } from '../../../ui/pointer-scale';

interface LevelProps {
  name: string;
  label: string;
  value: number;
  range: readonly [least: number, most: number, step: number];
  ticks: { value: number; strong: boolean }[];
  text: string;
  onChange: (value: number, joins: boolean) => void;
}

export function Level({ name, label, value, range: [min, max, step], ticks, text, onChange }: LevelProps) {
  return (
    <div className="ctl" style={{ marginTop: 8 }}>
      <span className="lab">{name}</span>
      <PointerScale
        label={label}
        width={130}
        value={value}
        min={min}
        max={max}
        step={step}
        ticks={ticks}
        valueText={text}
        onChange={onChange}
      />
      <span className="n v">{text}</span>
    </div>
  );
}
