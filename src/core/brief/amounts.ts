/** Amounts as sentences and panels write them: number and unit joined by a no-break space. */
export const NBSP = '\u00a0';

/** +0.3 EV, −1.0 EV, ±0.0 EV. */
export const evText = (ev: number): string => `${ev > 0 ? '+' : ev < 0 ? '−' : '±'}${Math.abs(ev).toFixed(1)}${NBSP}EV`;

export const wholeText = (n: number): string => Math.round(n).toLocaleString('en');

export const kelvinText = (kelvin: number): string => `${wholeText(kelvin)}${NBSP}K`;

/** 100 %, 60 %, 2.5 %: what a dimmer leaves. */
export function percentOf(dim_ev: number): string {
  const percent = 100 * 2 ** dim_ev;
  return `${percent < 10 ? Math.round(percent * 10) / 10 : Math.round(percent)}${NBSP}%`;
}

export const capital = (text: string): string => text.replace(/^./, (c) => c.toUpperCase());

/** Whole numbers as a sentence has them: words up to nine, then figures. */
export const inWords = (n: number) =>
  ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'][n] ?? String(n);

/**
 * Grain, in L*, and how it looks at the distance for which the picture is made: a difference of about 1 is just seen
 * (CIE 1976 L*a*b*; the other bounds are common practice, no source).
 */
export function grainText(grain: number): string {
  const seen =
    grain < 0.05 ? 'none' : grain < 1 ? 'not visible' : grain < 2.5 ? 'slight' : grain < 6 ? 'visible' : 'strong';
  return `${grain.toFixed(1)}, ${seen}`;
}
