/**
 * The language in which the brief is defined: one definition a field, from which its type, its default, its check, its
 * part in the hashes, its documentation and the ranges of its controls follow.
 *
 * What a definition does not say itself it takes from the section around it: since which version it is there, what it
 * decides, and which word of the sentence names it.
 */

/** `film`: a change needs a new render. `finish`: the film is developed again. `neither`: the picture stays as it is. */
export type Decides = 'film' | 'finish' | 'neither';

/** The words of the sentence, each of which opens a panel. */
export const WORDS = [
  'viewpoint',
  'lens',
  'pose',
  'surroundings',
  'ground',
  'lamps',
  'look',
  'exposure',
  'background',
  'size',
  'quality',
  'finish'
] as const;
export type Word = (typeof WORDS)[number];

export interface Note {
  /** For controls and lists of changes. */
  label: string;
  /** One line of documentation. */
  doc: string;
  since?: number;
  decides?: Decides;
  word?: Word;
  /** It says how many pixels or samples there are, not what one of them costs: a probe does not depend on it. */
  amount?: boolean;
}

export interface NumberField extends Note {
  type: 'number';
  default: number;
  min: number;
  max: number;
  /** As it follows the number: "mm". Empty for a plain number. */
  unit: string;
  whole: boolean;
}
export interface FlagField extends Note {
  type: 'flag';
  default: boolean;
}
export interface TextField extends Note {
  type: 'text';
  default: string;
  minLength: number;
  maxLength: number;
  pattern: RegExp | null;
  /** "must be a name" */
  must: string;
}
export interface ChoiceField extends Note {
  type: 'choice';
  default: string;
  values: readonly string[];
}
export interface VectorField extends Note {
  type: 'vector';
  default: readonly [number, number, number];
  min: number;
  max: number;
}
export interface NullableField extends Note {
  type: 'nullable';
  default: null;
  of: Field;
}
export interface ListField extends Note {
  type: 'list';
  default: readonly unknown[];
  of: Field;
  maxItems: number;
  /** "lamps" */
  what: string;
}
export interface ObjectField extends Note {
  type: 'object';
  fields: Readonly<Record<string, Field>>;
  /** Completes what was given before it is checked. */
  complete: ((given: Record<string, unknown>) => Record<string, unknown>) | null;
  /** What is wrong with a value whose fields are all right by themselves; null when nothing is. */
  check: ((value: never) => string | null) | null;
}
export interface UnionField extends Note {
  type: 'union';
  variants: Readonly<Record<string, ObjectField>>;
  /** The variant of the default. */
  initial: string;
  /** Variants are told by their `kind`; else by what `choose` sees in a value. */
  choose: ((value: Readonly<Record<string, unknown>>) => string) | null;
}
export type Field =
  | NumberField
  | FlagField
  | TextField
  | ChoiceField
  | VectorField
  | NullableField
  | ListField
  | ObjectField
  | UnionField;

type Plain<T> = { [K in keyof T]: T[K] };
type Fields = Readonly<Record<string, Field>>;

/** The type of the values that a field takes. */
export type ValueOf<F> = F extends { value: infer T } ? T : never;
type Typed<F extends Field, T> = F & {
  /** Carries the type only; there is no such property. */
  value: T;
};
const typed = <F extends Field, T>(field: F) => field as Typed<F, T>;

type NumberOptions = Note & { default: number; min: number; max: number; unit?: string };

export const number = ({ unit = '', ...rest }: NumberOptions) =>
  typed<NumberField, number>({ type: 'number', whole: false, unit, ...rest });

export const whole = ({ unit = '', ...rest }: NumberOptions) =>
  typed<NumberField, number>({ type: 'number', whole: true, unit, ...rest });

export const flag = (options: Note & { default: boolean }) => typed<FlagField, boolean>({ type: 'flag', ...options });

export const text = ({
  minLength = 0,
  pattern = null,
  ...rest
}: Note & { default: string; minLength?: number; maxLength: number; pattern?: RegExp | null; must: string }) =>
  typed<TextField, string>({ type: 'text', minLength, pattern, ...rest });

export const choice = <const V extends readonly string[]>(values: V, options: Note & { default: V[number] }) =>
  typed<ChoiceField, V[number]>({ type: 'choice', values, ...options });

export const vector = (options: Note & { default: readonly [number, number, number]; min: number; max: number }) =>
  typed<VectorField, [number, number, number]>({ type: 'vector', ...options });

/** May be null, and is by default. */
export const nullable = <F extends Field & { value: unknown }>(of: F) =>
  typed<NullableField, F['value'] | null>({ ...noteOf(of), type: 'nullable', default: null, of });

export const list = <F extends Field & { value: unknown }>(of: F, options: Note & { maxItems: number; what: string }) =>
  typed<ListField, F['value'][]>({ type: 'list', default: [], of, ...options });

type ObjectOptions<T> = Note & {
  complete?: (given: Record<string, unknown>) => Record<string, unknown>;
  check?: (value: T) => string | null;
};

export function object<S extends Readonly<Record<string, Field & { value: unknown }>>>(
  fields: S,
  { complete, check, ...note }: ObjectOptions<Plain<{ -readonly [K in keyof S]: S[K]['value'] }>>
) {
  return typed<ObjectField & { fields: S }, Plain<{ -readonly [K in keyof S]: S[K]['value'] }>>({
    type: 'object',
    fields,
    complete: complete ?? null,
    check: (check ?? null) as ObjectField['check'],
    ...note
  });
}

type Variants = Readonly<Record<string, ObjectField & { value: object }>>;

/** One of several shapes, told apart by `kind`. */
export const tagged = <V extends Variants>(variants: V, options: Note & { initial: keyof V & string }) =>
  typed<UnionField & { variants: V }, { [K in keyof V]: Plain<{ kind: K } & V[K]['value']> }[keyof V]>({
    type: 'union',
    variants,
    choose: null,
    ...options
  });

/** One of several shapes, told apart by the fields that a value has. */
export const shapes = <V extends Variants>(
  variants: V,
  options: Note & { initial: keyof V & string; choose: (value: Readonly<Record<string, unknown>>) => keyof V & string }
) =>
  typed<UnionField & { variants: V }, { [K in keyof V]: V[K]['value'] }[keyof V]>({
    type: 'union',
    variants,
    ...options
  });

function noteOf({ label, doc, since, decides, word, amount }: Note): Note {
  return { label, doc, ...given({ since, decides, word, amount }) };
}
const given = <T extends object>(values: T): T =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)) as T;

/** The variant that a value of a union has; null when its kind is none. */
export function variantOf(field: UnionField, value: Readonly<Record<string, unknown>>): string | null {
  const key = field.choose ? field.choose(value) : value.kind;
  return typeof key === 'string' && Object.hasOwn(field.variants, key) ? key : null;
}

/** The default of a field, whole. */
export function defaultOf<F extends Field>(field: F & { value?: unknown }): ValueOf<F> {
  return plainDefault(field) as ValueOf<F>;
}
/** The defaults of a variant, with its kind where it has one. */
export function variantDefault(field: UnionField, key: string): Record<string, unknown> {
  return { ...(field.choose ? {} : { kind: key }), ...(plainDefault(field.variants[key]!) as object) };
}
function plainDefault(field: Field): unknown {
  switch (field.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(field.fields as Fields).map(([key, child]) => [key, plainDefault(child)])
      );
    case 'union':
      return variantDefault(field, field.initial);
    case 'list':
      return [...field.default];
    case 'vector':
      return [...field.default];
    default:
      return field.default;
  }
}
