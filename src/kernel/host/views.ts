/** A memory seen as the number types that its layout is made of. */
export interface Views {
  bytes: Uint8Array;
  u16: Uint16Array;
  f32: Float32Array;
  u32: Uint32Array;
  i32: Int32Array;
}

export const viewsOf = ({ buffer }: WebAssembly.Memory): Views => ({
  bytes: new Uint8Array(buffer),
  u16: new Uint16Array(buffer),
  f32: new Float32Array(buffer),
  u32: new Uint32Array(buffer),
  i32: new Int32Array(buffer)
});
