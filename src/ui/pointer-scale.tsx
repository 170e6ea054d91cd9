'use client';
/**
 * The only slider: a rule with ticks and a pentagonal pointer on it. At rest it is ink; blue when changed since the
 * proof on the stage, where a hollow ring marks where the value stood. Arrows and pages move it (slider-keys.ts).
 */
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { sliderValue } from './slider-keys';
import { useDrag } from './use-drag';

export interface ScaleTick {
  value: number;
  label?: string;
  strong?: boolean;
}

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  /** Smallest step, for keys and rounding. */
  step: number;
  ticks: ScaleTick[];
  /** Spoken value with its unit. */
  valueText: string;
  was?: number | null;
  changed?: boolean;
  logarithmic?: boolean;
  width?: number;
  /** Where a double press puts it. */
  initial?: number | undefined;
  bands?: { from: number; to: number; label: string }[];
  onChange: (value: number, joins: boolean) => void;
}

export function PointerScale({
  label,
  value,
  min,
  max,
  step,
  ticks,
  valueText,
  was,
  changed,
  logarithmic,
  width = 296,
  initial,
  bands = [],
  onChange
}: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const toX = (v: number) => (logarithmic ? Math.log(v / min) / Math.log(max / min) : (v - min) / (max - min)) * width;
  const clamp = (v: number) => Math.min(max, Math.max(min, Math.round(v / step) * step));
  const fromEvent = (event: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect();
    const t = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width));
    return clamp(logarithmic ? min * (max / min) ** t : min + (max - min) * t);
  };
  const drag = useDrag<SVGSVGElement>((e, joins) => onChange(fromEvent(e), joins));
  const keys = (event: KeyboardEvent) => {
    const next = sliderValue(event, { value, min, max, step });
    if (next === null) return;
    event.preventDefault();
    onChange(clamp(next), false);
  };
  const x = toX(Math.min(max, Math.max(min, value)));
  const labelled = ticks.some((t) => t.label);
  const height = bands.length ? 58 : labelled ? 36 : 22;
  const inBand = bands.find((b) => value >= b.from && value < b.to);
  return (
    <svg
      ref={svg}
      className="scale"
      viewBox={`0 0 ${width} ${height}`}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={Math.round(value * 1000) / 1000}
      aria-valuetext={valueText}
      style={{ touchAction: 'none' }}
      onKeyDown={keys}
      onDoubleClick={() => initial !== undefined && onChange(initial, false)}
      {...drag}
    >
      <rect x="0" y="0" width={width} height={height} fill="transparent" />
      <line className="axis" x1="0" x2={width} y1="18.5" y2="18.5" />
      {ticks.map((t) => {
        const at = Math.min(width - 0.5, Math.max(0.5, toX(t.value)));
        return (
          <g key={t.value}>
            <line className="tick" x1={at} x2={at} y1={t.strong ? 10 : 14} y2="18" />
            {t.label ? (
              <text
                x={at}
                y="33"
                textAnchor={at < 8 ? 'start' : at > width - 8 ? 'end' : 'middle'}
                className={t.value === value ? 'on' : undefined}
              >
                {t.label}
              </text>
            ) : null}
          </g>
        );
      })}
      {bands.map((b) => (
        <g key={b.label}>
          <line
            className="band"
            x1={toX(b.from) + 2}
            x2={toX(b.to) - 2}
            y1="20.5"
            y2="20.5"
            style={{ stroke: b === inBand ? 'var(--color-base-content)' : 'var(--color-base-300)' }}
          />
          <text
            x={(toX(b.from) + toX(b.to)) / 2}
            y="50"
            textAnchor="middle"
            className={b === inBand ? 'on' : undefined}
          >
            {b.label}
          </text>
        </g>
      ))}
      {was !== undefined && was !== null && changed ? <circle className="was" cx={toX(was)} cy="18.5" r="3.2" /> : null}
      <path className={`ptr${changed ? ' ch' : ''}`} d={`M${x - 6} 1h12v9l-6 8-6-8z`} />
    </svg>
  );
}
