'use client';
/**
 * A number on a ruled line. Takes effect on Enter or when it is left; Esc gives back what was there; what is no number of
 * its range stays to be corrected, with words that say why.
 * With `none`, it may be empty, which is shown as that word.
 */
import { useId, useRef, useState } from 'react';

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

/** As many decimals as asked for; where none are, those that the number has after all. */
export function numberText(value: number, digits: number): string {
  return digits === 0 ? String(Number(value.toFixed(2))) : value.toFixed(digits);
}

/** Why a text is no number of a range, as a sentence that says what would be; null when it is one. */
export function numberFault(
  text: string,
  { min, max, unit, none }: Pick<Common, 'min' | 'max' | 'unit'> & { none?: string | undefined }
): string | null {
  const range = `from ${min.toLocaleString('en')} to ${max.toLocaleString('en')}${unit ? ` ${unit}` : ''}`;
  if (text.trim() === '') return none === undefined ? `Enter a number ${range}.` : null;
  const number = parseNumber(text);
  if (!Number.isFinite(number)) return `“${text.trim()}” is not a number. Enter one ${range}.`;
  return number < min || number > max ? `Enter a number ${range}.` : null;
}

/** With a decimal point or a comma. */
const parseNumber = (text: string): number => Number(text.replace(',', '.').trim());

export function NumberField(props: Props) {
  const { label, value, min, max, digits = 0, unit, none } = props;
  const id = useId();
  const shown = value === null ? '' : numberText(value, digits);
  // while it is in hand, what it showed then and what is typed: news from elsewhere overwrites nothing, and does not
  // let go of what is selected
  const [inHand, setInHand] = useState<{ was: string; text: string } | null>(null);
  const abandoned = useRef(false);
  const text = inHand?.text ?? shown;
  const fault = inHand && inHand.text !== inHand.was ? numberFault(text, { min, max, unit, none }) : null;
  const take = () => {
    const given = inHand && inHand.text !== inHand.was && !abandoned.current;
    // what is wrong stays, with what is wrong about it, to be corrected
    if (given && fault) return;
    if (given) {
      const empty = text.trim() === '';
      if (none !== undefined) props.onChange(empty ? null : parseNumber(text));
      else props.onChange(parseNumber(text));
    }
    abandoned.current = false;
    setInHand(null);
  };
  return (
    <span className="fldbox">
      <span className="fld">
        <input
          className="n"
          aria-label={unit ? `${label}, ${unit}` : label}
          inputMode="decimal"
          value={text}
          placeholder={none}
          aria-invalid={fault !== null}
          aria-describedby={fault ? id : undefined}
          onChange={(e) => setInHand({ was: inHand?.was ?? shown, text: e.target.value })}
          onFocus={() => setInHand((now) => now ?? { was: shown, text: shown })}
          onBlur={take}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              take();
              e.currentTarget.select();
            }
            if (e.key === 'Escape') {
              e.stopPropagation();
              abandoned.current = true;
              e.currentTarget.blur();
            }
          }}
        />
        {unit ? (
          <span className="u" aria-hidden="true">
            {unit}
          </span>
        ) : null}
      </span>
      {fault ? (
        <span className="fault" id={id} role="alert">
          {fault}
        </span>
      ) : null}
    </span>
  );
}
