import { construct } from '../../ir/build';
import type { Expression } from '../../ir/ir';
import { BOOL, FLOAT, INT, typeName, UINT, vector, type Type } from '../../ir/types';
import type { DeclaredUniform } from '../../language';

/** Parts of one uniform that become parameters: more of them nobody edits by hand. */
const MOST_PARTS = 64;

/** A part of a uniform that one control edits. */
interface Part {
  readonly name: string;
  readonly type: Type;
  readonly fallback?: readonly number[];
}

/**
 * A uniform as parameters have it: itself, or where no control edits its type, its parts, each by itself. A matrix becomes its
 * columns (of the unit matrix, to begin with), a struct its fields, an array its elements.
 *
 * @returns nothing where there are too many
 */
export function partsOf(uniform: DeclaredUniform): readonly DeclaredUniform[] | undefined {
  const parts = leaves(uniform.name, uniform.type);
  if (parts.length === 1 && parts[0]?.type === uniform.type) return [uniform];
  if (parts.length > MOST_PARTS) return undefined;
  return parts.map(({ name, type, fallback }) => ({ name, irName: name, type, nameRange: uniform.nameRange, fallback }));
}

/** The uniform's value out of those of its parts. */
export function putTogether({ name, type }: DeclaredUniform, read: (part: string) => Expression | undefined): Expression | undefined {
  const of = (path: string, part: Type): Expression | undefined => {
    const inside = insideOf(path, part);
    if (!inside) return read(path);
    const values = inside.map((each) => of(each.name, each.type));
    return values.every((each) => each !== undefined) ? construct(part, values) : undefined;
  };
  return of(name, type);
}

function leaves(name: string, type: Type, fallback?: readonly number[]): Part[] {
  return insideOf(name, type)?.flatMap((each) => leaves(each.name, each.type, each.fallback)) ?? [{ name, type, fallback }];
}

const ELEMENTS = { int: INT, uint: UINT, bool: BOOL, float: FLOAT } as const;

function insideOf(name: string, type: Type): readonly Part[] | undefined {
  const numbered = (count: number, element: Type, fallback?: (index: number) => readonly number[]): Part[] =>
    Array.from({ length: count }, (_, index) => ({ name: `${name}_${index}`, type: element, fallback: fallback?.(index) }));
  if (type.kind === 'matrix')
    return numbered(type.columns, vector(type.rows), (column) => Array.from({ length: type.rows }, (_, row) => Number(row === column)));
  if (type.kind === 'struct') return type.fields.map((field) => ({ name: `${name}_${field.name}`, type: field.type }));
  if (type.kind === 'array' && typeName(type) !== 'vec4[8]') return numbered(type.length, type.element);
  if (type.kind !== 'vector' || type.scalar === 'float') return undefined;
  return [...'xyzw'.slice(0, type.size)].map((letter) => ({ name: `${name}_${letter}`, type: ELEMENTS[type.scalar] }));
}
