/** The characters that a picture's tones can have. The names are our own; what they do is in color/tone.ts. */
export const TONE_CHARACTERS = ['photographic', 'gentle', 'crisp', 'faded', 'neutral', 'plain'] as const;
export type ToneCharacter = (typeof TONE_CHARACTERS)[number];

export const TONE_CHARACTER_NOTES: Record<ToneCharacter, { name: string; says: string }> = {
  photographic: { name: 'Photographic', says: 'As a photographer would print it: clear mid tones, soft highlights.' },
  gentle: { name: 'Gentle', says: 'Less contrast; bright windows keep more of what is behind them.' },
  crisp: { name: 'Crisp', says: 'More contrast, deep blacks.' },
  faded: { name: 'Faded', says: 'As an old print: no black is quite black, colours are quiet.' },
  neutral: { name: 'Neutral', says: 'Little contrast and colours as they are, to grade elsewhere.' },
  plain: { name: 'Plain', says: 'No curve: light is shown as it is, and what is brighter than white is cut off.' }
};
