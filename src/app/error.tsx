'use client';
import { useAlive } from '../ui/early-presses';
import { Mark } from '../ui/mark';

export default function ErrorPage({ reset }: { reset: () => void }) {
  useAlive();
  return (
    <main className="plain">
      <Mark client="" />
      <p className="say">Something went wrong on our side. Your projects, briefs and proofs are saved.</p>
      <button type="button" className="lk act" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
