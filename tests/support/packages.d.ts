declare module 'culori' {
  export function converter(
    mode: 'lrgb'
  ): (color: { mode: 'rgb'; r: number; g: number; b: number }) => { r: number; g: number; b: number };
}
declare module 'gltf-validator' {
  export function validateBytes(
    bytes: Uint8Array
  ): Promise<{ issues: { numErrors: number; messages: { severity: number; message: string; pointer?: string }[] } }>;
}
