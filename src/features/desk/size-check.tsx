'use client';
/** Asks for the unit and the axis of a file that does not state them: the size in words, and a person beside it. */
import { useEffect, useRef, useState } from 'react';
import type { LengthUnit } from '../../core/units/units';
import type { Recognition } from '../../formats/model/recognition';
import { ReadAsFields } from '../shared/read-as-fields';
import { COPY } from './copy';

interface Props {
  found: Recognition & { size: [number, number, number] };
  onAnswer: (unit: LengthUnit, up: 'y' | 'z') => void;
}

export function SizeCheck({ found, onAnswer }: Props) {
  const [readAs, setReadAs] = useState(found.guess);
  const answer = useRef<HTMLButtonElement>(null);
  // the question is wider than the empty slip, and may stand in a row below
  useEffect(() => {
    // newer browsers answer with a promise, which is no way to clean up
    void answer.current?.scrollIntoView({ block: 'nearest' });
  }, []);
  return (
    <ReadAsFields size={found.size} readAs={readAs} onChange={setReadAs}>
      <button ref={answer} type="button" className="lk act" onClick={() => onAnswer(readAs.unit, readAs.up)}>
        {COPY.bringIn}
      </button>
    </ReadAsFields>
  );
}
