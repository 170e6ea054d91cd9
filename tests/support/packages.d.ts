declare module 'culori' {
  export function converter(
    mode: 'oklch'
  ): (color: { mode: 'lrgb'; r: number; g: number; b: number }) => { l: number; c: number; h?: number };
  export function converter(
    mode: 'lrgb' | 'p3'
  ): (color: { mode: 'rgb'; r: number; g: number; b: number }) => { r: number; g: number; b: number };
}
