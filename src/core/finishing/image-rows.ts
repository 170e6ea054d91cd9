/** A picture that is never held whole: its rows are asked for from the top down. */
export interface ImageRows {
  width: number;
  height: number;
  /** `count` rows of rgba8 from row `y` on, encoded sRGB, not premultiplied. */
  read(y: number, count: number): Promise<Uint8Array>;
}
