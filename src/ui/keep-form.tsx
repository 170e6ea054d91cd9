'use client';
/** A line to keep something under a name: emptied when it is kept. */
import { useState } from 'react';

export function KeepForm({
  label,
  placeholder,
  onKeep
}: {
  label: string;
  placeholder: string /** False: not kept, the name stays. */;
  onKeep: (name: string) => Promise<boolean>;
}) {
  const [name, setName] = useState('');
  return (
    <form
      className="row"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim()) void onKeep(name).then((kept) => kept && setName(''));
      }}
    >
      <span className="fld" style={{ flex: 1 }}>
        <input
          aria-label={label}
          placeholder={placeholder}
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
        />
      </span>
      <button type="submit" className="lk act" aria-disabled={!name.trim()}>
        Save
      </button>
    </form>
  );
}
