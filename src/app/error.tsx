'use client';
import { useAlive } from '../ui/early-presses';
import { Mark } from '../ui/mark';

export default function ErrorPage({ reset }: { reset: () => void }) {
  useAlive();
  return (
    <main className="plain">
      <Mark client="" />
      <p className="say">This page broke by our own fault. Your projects, briefs and proofs are kept.</p>
      <button type="button" className="lk act" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
