'use client';
/** A number on a ruled line. Takes effect on Enter or when it is left; Esc gives back what was there; bad text says so. */
import { useEffect, useRef, useState } from 'react';

interface Props {
  label: string;
  value: number;
  min: number;
  max: number;
  digits?: number;
  unit?: string;
  onChange: (value: number) => void;
}

export function NumberField({ label, value, min, max, digits = 0, unit, onChange }: Props) {
  const shown = value.toFixed(digits);
  const [text, setText] = useState(shown);
  const abandoned = useRef(false);
  const focused = useRef(false);
  // what is being typed is not overwritten by news from elsewhere
  useEffect(() => {
    if (!focused.current) setText(shown);
  }, [shown]);
  const number = Number(text.replace(',', '.').trim());
  const bad = text.trim() === '' || !Number.isFinite(number) || number < min || number > max;
  const take = () => {
    if (abandoned.current || bad) setText(shown);
    else if (text !== shown) onChange(number);
    abandoned.current = false;
  };
  return (
    <span className="fld">
      <input
        className="n"
        aria-label={label}
        inputMode="decimal"
        value={text}
        aria-invalid={bad}
        title={bad ? `from ${min} to ${max}${unit ? ` ${unit}` : ''}` : undefined}
        onChange={(e) => setText(e.target.value)}
        onFocus={() => {
          focused.current = true;
        }}
        onBlur={() => {
          focused.current = false;
          take();
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') {
            e.stopPropagation();
            abandoned.current = true;
            e.currentTarget.blur();
          }
        }}
      />
      {unit ? <span className="u">{unit}</span> : null}
    </span>
  );
}
