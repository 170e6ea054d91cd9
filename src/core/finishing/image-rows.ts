/** Codes of 8 or of 16 bits. */
export type Codes = Uint8Array | Uint16Array;

/** A picture that is never held whole: its rows are asked for from the top down. */
export interface ImageRows<C extends Codes = Uint8Array> {
  width: number;
  height: number;
  /** `count` rows of rgba codes from row `y` on, encoded sRGB, not premultiplied. */
  read(y: number, count: number): Promise<C>;
}
