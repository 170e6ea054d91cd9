/** Which unit and axis a file is read as: its size by that in words, and a person beside it. */
import type { ReactNode } from 'react';
import type { ReadAs } from '../../core/units/read-as';
import { type LengthUnit, METRES_PER_UNIT } from '../../core/units/units';
import { sizeSentence, UNIT_NAMES } from './file-size';

interface Props {
  /** Along X, Y, Z of the file, in its own unit. */
  size: readonly [number, number, number];
  readAs: ReadAs;
  onChange: (readAs: ReadAs) => void;
  /** What is done with the answer. */
  children: ReactNode;
}

const UNITS = Object.keys(UNIT_NAMES) as LengthUnit[];
const PERSON = 'A person of 1.75 m beside it';

export function ReadAsFields({ size, readAs, onChange, children }: Props) {
  const { unit, up } = readAs;
  const [x, y, z] = size;
  return (
    <>
      <span className="d1" role="status">
        {sizeSentence(size, unit, up)}
      </span>
      <PersonBeside width_m={x * METRES_PER_UNIT[unit]} height_m={(up === 'y' ? y : z) * METRES_PER_UNIT[unit]} />
      <span className="d2">
        <select
          className="plainselect"
          aria-label="Unit of the file"
          value={unit}
          onChange={(e) => onChange({ ...readAs, unit: e.target.value as LengthUnit })}
        >
          {UNITS.map((key) => (
            <option key={key} value={key}>
              {UNIT_NAMES[key]}
            </option>
          ))}
        </select>
        <select
          className="plainselect"
          aria-label="Which axis points up"
          value={up}
          onChange={(e) => onChange({ ...readAs, up: e.target.value as 'y' | 'z' })}
        >
          <option value="y">Y is up</option>
          <option value="z">Z is up</option>
        </select>
        {children}
      </span>
    </>
  );
}

const PERSON_M = 1.75;
const WIDTH = 200;
const HEIGHT = 56;

/** The model's box and a person, to one scale. Where one is far larger, the other is a speck: that says it too. */
function PersonBeside({ width_m, height_m }: { width_m: number; height_m: number }) {
  const scale = Math.min((HEIGHT - 2) / Math.max(PERSON_M, height_m), (WIDTH - 40) / (width_m + PERSON_M));
  const person = Math.max(2, PERSON_M * scale);
  const [w, h] = [Math.max(1, width_m * scale), Math.max(1, height_m * scale)];
  const head = person * 0.075;
  const [shoulder, arm, leg] = [0.24, 0.34, 0.47].map((share) => person * share) as [number, number, number];
  const side = (shoulder - person * 0.14) / 2;
  const torso = `M${-shoulder / 2} ${person * 0.19}h${shoulder}v${arm}h${-side}`;
  const body = `${torso}v${leg}h${2 * side - shoulder}v${-leg}h${-side}z`;
  return (
    <svg
      className="person"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={PERSON}
    >
      <path d={`M0 ${HEIGHT - 0.5}H${WIDTH}`} stroke="currentColor" strokeOpacity=".4" />
      <rect x={2} y={HEIGHT - 1 - h} width={w} height={h} fill="none" stroke="currentColor" />
      <g transform={`translate(${w + 14 + person * 0.15} ${HEIGHT - 1 - person})`} fill="currentColor">
        <circle cx={0} cy={head} r={head} />
        <path d={body} />
      </g>
    </svg>
  );
}
