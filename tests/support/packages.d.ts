declare module 'culori' {
  export function converter(
    mode: 'lrgb'
  ): (color: { mode: 'rgb'; r: number; g: number; b: number }) => { r: number; g: number; b: number };
}
