'use client';
/**
 * A number on a ruled line. Takes effect on Enter or when it is left; Esc gives back what was there; bad text says so.
 * With `none`, it may be empty, which is shown as that word.
 */
import { useRef, useState } from 'react';

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
  // while it is in hand, what it showed then and what is typed: news from elsewhere overwrites nothing, and does not
  // let go of what is selected
  const [inHand, setInHand] = useState<{ was: string; text: string } | null>(null);
  const abandoned = useRef(false);
  const text = inHand?.text ?? shown;
  const number = Number(text.replace(',', '.').trim());
  const empty = text.trim() === '';
  const bad = empty ? none === undefined : !Number.isFinite(number) || number < min || number > max;
  const take = () => {
    setInHand(null);
    if (inHand && inHand.text !== inHand.was && !abandoned.current && !bad) {
      if (none !== undefined) props.onChange(empty ? null : number);
      else props.onChange(number);
    }
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
        onChange={(e) => setInHand({ was: inHand?.was ?? shown, text: e.target.value })}
        onFocus={() => setInHand({ was: shown, text: shown })}
        onBlur={take}
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
