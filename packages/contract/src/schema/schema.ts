/**
 * A schema is a value that describes what travels: a document or a message. All else that must know its form derives from
 * it: its type (`TypeOf`), the validator, the published JSON Schema, the message classes of the server, and what a change
 * at a path can do (`effectAt`).
 */
export type Schema<T = unknown> = SchemaForm & { readonly [TYPE]: T };

/** The type of what a schema describes. */
export type TypeOf<S> = S extends { readonly [TYPE]: infer T } ? T : never;

/** The type of what was received by a schema: what was left out and stands for something is there. */
export type ReceivedOf<S> = S extends { readonly [RECEIVED]: infer T } ? T : never;

declare const TYPE: unique symbol;
declare const RECEIVED: unique symbol;

export type SchemaForm =
  | TextForm
  | NumberForm
  | { readonly kind: 'boolean' }
  | ExactlyForm
  | { readonly kind: 'list'; readonly of: Schema; readonly shortest: number; readonly longest: number }
  | { readonly kind: 'record'; readonly keys: string; readonly of: Schema; readonly longest: number }
  | ObjectForm
  | { readonly kind: 'either'; readonly of: readonly Schema[]; readonly expected: string }
  | { readonly kind: 'none' }
  | AnyForm;

export interface TextForm {
  readonly kind: 'text';
  readonly longest: number;
  readonly shortest: number;
  readonly pattern?: string;
  /** What the pattern asks for, in words, as they follow “must be”. */
  readonly expected?: string;
  /** A moment, ISO 8601, as dates of JavaScript become in JSON. */
  readonly moment?: boolean;
}

export interface NumberForm {
  readonly kind: 'number';
  readonly least?: number;
  readonly most?: number;
  readonly whole?: boolean;
}

export interface ExactlyForm {
  readonly kind: 'exactly';
  readonly values: readonly (string | number)[];
}

export interface ObjectForm {
  readonly kind: 'object';
  readonly fields: Readonly<Record<string, Field>>;
}

/** Anything of JSON. What more is asked of it is checked elsewhere, and only told here. */
export interface AnyForm {
  readonly kind: 'any';
  /** What it is, for readers of the published schema. */
  readonly described?: readonly Schema[];
}

/**
 * What a change of a field can ask for: `structure`: another program; `value`: none, except where a number found no room
 * among the uniforms and stands in the program; `none`: never one.
 */
export type Effect = 'structure' | 'value' | 'none';

export interface Field<T = unknown, Optional extends boolean = boolean> {
  readonly schema: Schema<T>;
  readonly optional: Optional;
  readonly help?: string;
  readonly effect: Effect;
  /** What an absent optional field of a query stands for. */
  readonly otherwise?: T;
}

/** What fields of an object are given as: a schema alone is a field that must be there. */
export type Fields = Readonly<Record<string, Schema | Field>>;

type TypeOfField<F> = F extends Field<infer T> ? T : TypeOf<F>;
type IsOptional<F> = F extends Field<unknown, true> ? true : false;
type MayBeAbsent<F> = F extends { readonly otherwise: unknown } ? false : IsOptional<F>;

/** The type of an object with these fields, as it is sent. */
export type TypeOfFields<F extends Fields> = {
  readonly [K in keyof F as IsOptional<F[K]> extends true ? never : K]: TypeOfField<F[K]>;
} & { readonly [K in keyof F as IsOptional<F[K]> extends true ? K : never]?: TypeOfField<F[K]> };

type ReceivedOfFields<F extends Fields> = {
  readonly [K in keyof F as MayBeAbsent<F[K]> extends true ? never : K]: TypeOfField<F[K]>;
} & { readonly [K in keyof F as MayBeAbsent<F[K]> extends true ? K : never]?: TypeOfField<F[K]> };

export type ObjectSchema<T = unknown, R = unknown> = ObjectForm & Schema<T> & { readonly [RECEIVED]: R };

export const text = (longest: number, shortest = 0): Schema<string> => typed({ kind: 'text', longest, shortest });

/** @param expected what it must be, in words */
export const pattern = (source: string, longest: number, expected?: string): Schema<string> =>
  typed({ kind: 'text', longest, shortest: 0, pattern: source, ...(expected ? { expected } : {}) });

export const moment: Schema<string> = typed({ kind: 'text', longest: 40, shortest: 1, moment: true });
export const number = (least = -1e9, most = 1e9): Schema<number> => typed({ kind: 'number', least, most });
export const whole = (least: number, most: number): Schema<number> => typed({ kind: 'number', least, most, whole: true });
/** A whole number that somebody counted: nothing bounds it. */
export const count: Schema<number> = typed({ kind: 'number', least: 0, whole: true });
export const flag: Schema<boolean> = typed({ kind: 'boolean' });
export const none: Schema<null> = typed({ kind: 'none' });

export const oneOf = <const V extends readonly string[]>(values: V): Schema<V[number]> => typed({ kind: 'exactly', values });
/** The one version of a format that is written today. */
export const version = (present: number): Schema<number> => typed({ kind: 'exactly', values: [present] });

export const list = <T>(of: Schema<T>, shortest: number, longest: number): Schema<readonly T[]> =>
  typed({ kind: 'list', of, shortest, longest });
export const tuple = <T>(of: Schema<T>, length: number): Schema<readonly T[]> => list(of, length, length);

/** @param keys the pattern of a name */
export const record = <T>(of: Schema<T>, longest: number, keys: string): Schema<Readonly<Record<string, T>>> =>
  typed({ kind: 'record', keys, of, longest });

export const object = <const F extends Fields>(fields: F): ObjectSchema<TypeOfFields<F>, ReceivedOfFields<F>> =>
  typed<TypeOfFields<F>>({
    kind: 'object',
    fields: Object.fromEntries(Object.entries(fields).map(([name, each]) => [name, fieldOf(each)])),
  }) as ObjectSchema<TypeOfFields<F>, ReceivedOfFields<F>>;

/** @param expected what it must be, in words */
export const either = <S extends readonly Schema[]>(of: S, expected: string): Schema<TypeOf<S[number]>> =>
  typed({ kind: 'either', of, expected });

/** @param described what it is, where only that is told here and checked elsewhere */
export const anything = <T>(...described: readonly Schema<T>[]): Schema<T> =>
  typed({ kind: 'any', ...(described.length > 0 ? { described } : {}) });

/** A field with words on it: units, spaces, what it is for. */
export const described = <T, O extends boolean = false>(of: Schema<T> | Field<T, O>, help: string): Field<T, O> => ({
  ...(fieldOf(of) as Field<T, O>),
  help,
});

export const optional = <T>(schema: Schema<T>, help?: string): Field<T, true> => ({
  ...(fieldOf(schema) as Field<T>),
  optional: true,
  ...(help ? { help } : {}),
});

/** An optional field of a query. @param value what it stands for when it is absent */
export const withDefault = <T>(schema: Schema<T>, value: NoInfer<T>): Field<T, true> & { readonly otherwise: T } => ({
  ...optional(schema),
  otherwise: value,
});

/** A field whose changes never ask for another program. */
export const inert = <T, O extends boolean = false>(of: Schema<T> | Field<T, O>): Field<T, O> => ({
  ...(fieldOf(of) as Field<T, O>),
  effect: 'none',
});

/** A field whose changes are uniforms, as long as there is room. */
export const tunable = <T, O extends boolean = false>(of: Schema<T> | Field<T, O>): Field<T, O> => ({
  ...(fieldOf(of) as Field<T, O>),
  effect: 'value',
});

function fieldOf(of: Schema | Field): Field {
  return 'schema' in of ? of : { schema: of, optional: false, effect: 'structure' };
}

function typed<T>(form: SchemaForm): Schema<T> {
  return form as Schema<T>;
}
