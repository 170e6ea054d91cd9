/** A ruler along one side of a sheet: ticks in mm, inches or px, and the end value with its unit once. */
interface Props {
  side: 'h' | 'v';
  /** Length of the side in `unit`s. */
  length: number;
  unit: 'mm' | 'in' | 'px';
}

interface Steps {
  small: number;
  middle: number;
  large: number;
}

function stepsFor(unit: Props['unit'], length: number): Steps {
  if (unit === 'in')
    return length > 30 ? { small: 1, middle: 5, large: 10 } : { small: 0.5, middle: 1, large: length > 12 ? 5 : 2 };
  const base = unit === 'px' ? 1000 : 100;
  let large = base;
  while (length / large > 6) large *= 2;
  while (length / large < 1.6 && large > base / 100) large /= 2;
  return { small: large / 10, middle: large / 2, large };
}

const format = (value: number, unit: Props['unit']) =>
  unit === 'px' ? String(Math.round(value)) : String(Math.round(value * 10) / 10);

export function Ruler({ side, length, unit }: Props) {
  const { small, middle, large } = stepsFor(unit, length);
  const isMultiple = (v: number, step: number) => Math.abs(v / step - Math.round(v / step)) < 1e-6;
  const ticks: number[] = [];
  for (let v = 0; v < length - small * 0.3; v += small) ticks.push(v);
  ticks.push(length);
  const labels = ticks.filter((v) => v !== length && isMultiple(v, large) && length - v > large * 0.55);
  const box = side === 'h' ? `0 0 ${length} 10` : `0 0 10 ${length}`;
  return (
    <>
      <svg className={`rul ${side}`} viewBox={box} preserveAspectRatio="none" aria-hidden="true">
        {ticks.map((v) => {
          const from = v === length || isMultiple(v, large) ? 0 : isMultiple(v, middle) ? 3 : 6;
          return side === 'h' ? (
            <line key={v} x1={v} x2={v} y1={from} y2={10} />
          ) : (
            <line key={v} y1={v} y2={v} x1={from} x2={10} />
          );
        })}
      </svg>
      {labels.map((v) => (
        <span key={v} className={`rn ${side} n`} style={{ ['--x' as string]: v }}>
          {format(v, unit)}
        </span>
      ))}
      <span className={`rn ${side} n`} style={{ ['--x' as string]: length }}>
        {side === 'h' ? `${format(length, unit)}\u00a0${unit}` : format(length, unit)}
      </span>
    </>
  );
}
