'use client';
/** A choice among few: words with an underline under the chosen one. */

interface Props<K extends string> {
  label: string;
  value: K | null;
  options: readonly { key: K; label: string }[];
  onChoose: (key: K) => void;
}

export function Words<K extends string>({ label, value, options, onChoose }: Props<K>) {
  return (
    <div className="words" role="radiogroup" aria-label={label}>
      {options.map((option) => (
        <label key={option.key}>
          <input
            className="vh"
            type="radio"
            name={label}
            checked={option.key === value}
            onChange={() => onChoose(option.key)}
          />
          {option.label}
        </label>
      ))}
    </div>
  );
}
