/** Numbers of WebAssembly's types, as they stand in a module (WebAssembly Core Specification 2.0, section 5.3). */
export const F32 = 0x7d;
export const I32 = 0x7f;
export type Kind = typeof F32 | typeof I32;

/** The instructions that are written here (section 5.4). */
export const CODE = {
  block: 0x02,
  loop: 0x03,
  if: 0x04,
  else: 0x05,
  end: 0x0b,
  br: 0x0c,
  brIf: 0x0d,
  return: 0x0f,
  call: 0x10,
  select: 0x1b,
  localGet: 0x20,
  localSet: 0x21,
  globalGet: 0x23,
  globalSet: 0x24,
  i32Const: 0x41,
  f32Const: 0x43,
  i32Eqz: 0x45,
  i32Eq: 0x46,
  i32Ne: 0x47,
  i32LtS: 0x48,
  i32LtU: 0x49,
  i32GtS: 0x4a,
  i32GtU: 0x4b,
  i32LeS: 0x4c,
  i32LeU: 0x4d,
  i32GeS: 0x4e,
  i32GeU: 0x4f,
  f32Eq: 0x5b,
  f32Ne: 0x5c,
  f32Lt: 0x5d,
  f32Gt: 0x5e,
  f32Le: 0x5f,
  f32Ge: 0x60,
  i32Add: 0x6a,
  i32Sub: 0x6b,
  i32Mul: 0x6c,
  i32DivS: 0x6d,
  i32DivU: 0x6e,
  i32RemS: 0x6f,
  i32RemU: 0x70,
  i32And: 0x71,
  i32Or: 0x72,
  i32Xor: 0x73,
  i32Shl: 0x74,
  i32ShrS: 0x75,
  i32ShrU: 0x76,
  f32Abs: 0x8b,
  f32Neg: 0x8c,
  f32Ceil: 0x8d,
  f32Floor: 0x8e,
  f32Trunc: 0x8f,
  f32Nearest: 0x90,
  f32Sqrt: 0x91,
  f32Add: 0x92,
  f32Sub: 0x93,
  f32Mul: 0x94,
  f32Div: 0x95,
  f32Min: 0x96,
  f32Max: 0x97,
  f32FromI32: 0xb2,
  f32FromU32: 0xb3,
} as const;

/** A float as the whole number nearest to it towards 0, held in the range of the type (section 4.3.2): two bytes each. */
export const TRUNCATED_TO_I32 = [0xfc, 0x00] as const;
export const TRUNCATED_TO_U32 = [0xfc, 0x01] as const;

/** The type of blocks here: they take and leave nothing. */
export const EMPTY_BLOCK = 0x40;

/** What hosts take at most (WebAssembly JavaScript Interface 2.0, section 9). */
export const LIMITS = { locals: 50_000, codeBytes: 7_654_321, takes: 1_000, gives: 1_000 } as const;

const FUNCTION = 0x60;
const MUTABLE = 0x01;

/** LEB128 (section 5.2.2). */
export function unsigned(value: number): number[] {
  const bytes: number[] = [];
  let rest = value;
  do {
    bytes.push((rest & 0x7f) | (rest > 0x7f ? 0x80 : 0));
    rest >>>= 7;
  } while (rest > 0);
  return bytes;
}

export function signed(value: number): number[] {
  const bytes: number[] = [];
  let rest = value | 0;
  for (;;) {
    const low = rest & 0x7f;
    rest >>= 7;
    const last = (rest === 0 && (low & 0x40) === 0) || (rest === -1 && (low & 0x40) !== 0);
    bytes.push(last ? low : low | 0x80);
    if (last) return bytes;
  }
}

export function constantOf(kind: Kind, value: number): number[] {
  return kind === F32 ? [CODE.f32Const, ...new Uint8Array(new Float32Array([value]).buffer)] : [CODE.i32Const, ...signed(value)];
}

/** A type of functions. */
export interface Shape {
  readonly takes: readonly Kind[];
  readonly gives: readonly Kind[];
}
export interface Imported {
  /** Within the one namespace that is imported. */
  readonly name: string;
  readonly shape: Shape;
}
export interface Written {
  readonly shape: Shape;
  /** Besides those that it takes. */
  readonly locals: readonly Kind[];
  readonly code: readonly number[];
}
export interface Variable {
  readonly kind: Kind;
  readonly start: number;
}

export const NAMESPACE = 'builtins';
export const EXPORTED = 'run';

/** A module as bytes; the first of its own functions is exported. */
export function encodeModule(
  imports: readonly Imported[],
  functions: readonly Written[],
  variables: readonly Variable[],
): Uint8Array<ArrayBuffer> {
  const shapes = new Map<string, { readonly number: number; readonly bytes: readonly number[] }>();
  const shapeOf = ({ takes, gives }: Shape): number => {
    const bytes = [FUNCTION, ...vector(takes.map((each) => [each])), ...vector(gives.map((each) => [each]))];
    const key = bytes.join();
    const known = shapes.get(key) ?? { number: shapes.size, bytes };
    shapes.set(key, known);
    return known.number;
  };
  const imported = imports.map(({ name, shape }) => [...text(NAMESPACE), ...text(name), 0x00, ...unsigned(shapeOf(shape))]);
  const declared = functions.map(({ shape }) => unsigned(shapeOf(shape)));
  const globals = variables.map(({ kind, start }) => [kind, MUTABLE, ...constantOf(kind, start), CODE.end]);
  const bodies = functions.map(({ locals, code }) => {
    const body = [...vector(runs(locals)), ...code, CODE.end];
    return unsigned(body.length).concat(body);
  });
  const bytes = [0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00].concat(
    section(
      1,
      [...shapes.values()].map(({ bytes: shape }) => shape),
    ),
    section(2, imported),
    section(3, declared),
    section(6, globals),
    section(7, [[...text(EXPORTED), 0x00, ...unsigned(imports.length)]]),
    section(10, bodies),
  );
  return new Uint8Array(bytes);
}

function runs(kinds: readonly Kind[]): number[][] {
  const found: { count: number; readonly kind: Kind }[] = [];
  for (const kind of kinds) {
    const last = found.at(-1);
    if (last?.kind === kind) last.count++;
    else found.push({ count: 1, kind });
  }
  return found.map(({ count, kind }) => [...unsigned(count), kind]);
}

function section(id: number, entries: readonly (readonly number[])[]): number[] {
  const body = vector(entries);
  return [id].concat(unsigned(body.length), body);
}

function vector(entries: readonly (readonly number[])[]): number[] {
  return unsigned(entries.length).concat(...entries);
}

function text(word: string): number[] {
  return vector([...word].map((each) => [each.charCodeAt(0)]));
}
