declare module 'draco3dgltf' {
  const draco: { createDecoderModule(): Promise<unknown>; createEncoderModule(): Promise<unknown> };
  export default draco;
}
declare module 'gltf-validator' {
  interface Report {
    issues: { numErrors: number; messages: { code: string; severity: number; message: string; pointer?: string }[] };
  }
  interface Options {
    maxIssues?: number;
    externalResourceFunction?: (uri: string) => Promise<Uint8Array>;
  }
  export function validateBytes(bytes: Uint8Array, options?: Options): Promise<Report>;
  export function validateString(json: string, options?: Options): Promise<Report>;
}

declare module 'occt-import-js' {
  interface Reader {
    ReadStepFile(bytes: Uint8Array, options: object): unknown;
    ReadIgesFile(bytes: Uint8Array, options: object): unknown;
  }
  const open: () => Promise<Reader>;
  export default open;
}
