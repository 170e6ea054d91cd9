'use client';
/** How this browser shows the live view; kept in it, because it says nothing about the picture. */
import { useEffect, useState } from 'react';
import { MAX_THREADS } from './preview/messages';
import { SHADINGS, type Shading } from './raster/model-drawing';

export interface StageView {
  /** Whether the true picture is rendered on the stage. */
  preview: boolean;
  /** Threads that it may use; null for as many as the machine has. */
  threads: number | null;
  shading: Shading;
  edges: boolean;
  /** Shadows, contact shading and the blur of the lens; null for as the machine allows. */
  depth: boolean | null;
  /** Whether the sharp zone is drawn while the lens is set. */
  zone: boolean;
  guides: Guides;
}

/** Drawn over the picture, to compose by. */
export interface Guides {
  lines: 'none' | 'thirds' | 'diagonals' | 'middle';
  horizon: boolean;
}

const DEFAULTS: StageView = {
  preview: true,
  threads: null,
  shading: 'shaded',
  edges: false,
  depth: null,
  zone: true,
  guides: { lines: 'none', horizon: false }
};
export const GUIDES = ['none', 'thirds', 'diagonals', 'middle'] as const satisfies readonly Guides['lines'][];
const PLACE = 'sphaera stage';

export const threadsOf = ({ threads }: StageView): number =>
  Math.min(MAX_THREADS, Math.max(1, threads ?? navigator.hardwareConcurrency ?? 2));

export function useStageView(): [StageView, (part: Partial<StageView>) => void] {
  const [view, setView] = useState<StageView | null>(null);
  useEffect(() => setView(read()), []);
  const change = (part: Partial<StageView>) => {
    const next = { ...(view ?? DEFAULTS), ...part };
    setView(next);
    try {
      localStorage.setItem(PLACE, JSON.stringify(next));
    } catch {
      // without storage it holds for this visit
    }
  };
  // until it is read nothing is begun that might not be wanted
  return [view ?? { ...DEFAULTS, preview: false }, change];
}

function read(): StageView {
  try {
    const saved = JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<StageView>;
    return {
      preview: saved.preview !== false,
      threads:
        typeof saved.threads === 'number' && saved.threads >= 1
          ? Math.min(MAX_THREADS, Math.round(saved.threads))
          : null,
      shading: SHADINGS.find((shading) => shading === saved.shading) ?? 'shaded',
      edges: saved.edges === true,
      depth: typeof saved.depth === 'boolean' ? saved.depth : null,
      zone: saved.zone !== false,
      guides: {
        lines: GUIDES.find((lines) => lines === saved.guides?.lines) ?? 'none',
        horizon: saved.guides?.horizon === true
      }
    };
  } catch {
    return DEFAULTS;
  }
}
