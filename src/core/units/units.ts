/** Branded numbers: a value carries its unit across every edge between rooms. Inside a loop body plain numbers do. */
declare const unit: unique symbol;
type Branded<Name extends string> = number & { readonly [unit]: Name };

export type Metres = Branded<'m'>;
export type Millimetres = Branded<'mm'>;
export type Radians = Branded<'rad'>;
export type Seconds = Branded<'s'>;
export type Pixels = Branded<'px'>;

export const metres = (value: number) => value as Metres;
export const millimetres = (value: number) => value as Millimetres;
export const radians = (degrees: number) => ((degrees * Math.PI) / 180) as Radians;
export const degrees = (angle: number) => (angle * 180) / Math.PI;
export const seconds = (value: number) => value as Seconds;
export const pixels = (value: number) => Math.round(value) as Pixels;

/** Millimetres in an inch, exact since 1959. */
export const MM_PER_INCH = 25.4;

/** Metres in one of the units that model files are drawn in. */
export const METRES_PER_UNIT = { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 } as const;
export type LengthUnit = keyof typeof METRES_PER_UNIT;
