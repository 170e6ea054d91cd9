'use client';
/**
 * A number on a ruled line. Takes effect on Enter or when it is left; Esc gives back what was there; bad text says so. With `none`, it may
 * be empty, which is shown as that word.
 */
import { useEffect, useRef, useState } from 'react';

interface Common {
  label: string;
  min: number;
  max: number;
  digits?: number;
  unit?: string;
}
interface Required extends Common {
  value: number;
  none?: undefined;
  onChange: (value: number) => void;
}
interface Optional extends Common {
  value: number | null;
  none: string;
  onChange: (value: number | null) => void;
}
type Props = Required | Optional;

export function NumberField(props: Props) {
  const { label, value, min, max, digits = 0, unit, none } = props;
  const shown = value === null ? '' : value.toFixed(digits);
  const [text, setText] = useState(shown);
  const abandoned = useRef(false);
  const focused = useRef(false);
  // what is being typed is not overwritten by news from elsewhere
  useEffect(() => {
    if (!focused.current) setText(shown);
  }, [shown]);
  const number = Number(text.replace(',', '.').trim());
  const empty = text.trim() === '';
  const bad = empty ? none === undefined : !Number.isFinite(number) || number < min || number > max;
  const take = () => {
    if (abandoned.current || bad) setText(shown);
    else if (text !== shown && none !== undefined) props.onChange(empty ? null : number);
    else if (text !== shown) props.onChange(number);
    abandoned.current = false;
  };
  return (
    <span className="fld">
      <input
        className="n"
        aria-label={label}
        inputMode="decimal"
        value={text}
        placeholder={none}
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
