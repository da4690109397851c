import type { Expression } from '../ir/ir';
import type { Range } from '../ir/origin';
import { FLOAT, INT, sameType, typeName, UINT, type ScalarName, type Type } from '../ir/types';
import { write, type CodeMend, type TextEdit } from './diagnostics';
import type { ExpressionSyntax } from './syntax';

/**
 * How a value can be brought to another type by writing it differently, where that is most likely what is meant. What would
 * compile and mean something else is not offered: `int(0.25)` is 0, `float(1 / 2)` too, and a product of two directions
 * that should be a number is their dot product.
 */
export function conversionMend(value: Expression, wanted: Type, syntax: ExpressionSyntax): CodeMend | undefined {
  const given = value.type;
  if (given.kind === 'scalar' && wanted.kind === 'scalar') return scalarMend(value, given.scalar, wanted.scalar, syntax);
  if (given.kind === 'struct' && given.name === 'Lit' && typeName(wanted) === 'vec3') return around(syntax, 'totalLight');
  if (given.kind === 'vector' && given.scalar === 'float') {
    if (sameType(wanted, FLOAT)) return dotMend(value, syntax) ?? behind(syntax, '.x');
    if (wanted.kind !== 'vector' || wanted.scalar !== 'float') return undefined;
    if (wanted.size < given.size) return behind(syntax, `.${'xyzw'.slice(0, wanted.size)}`);
    const missing = Array.from({ length: wanted.size - given.size }, (_, index) => (given.size + index === 3 ? '1.0' : '0.0'));
    return around(syntax, typeName(wanted), missing.map((each) => `, ${each}`).join(''));
  }
  if (given.kind !== 'scalar' || wanted.kind !== 'vector' || wanted.scalar !== 'float') return undefined;
  if (given.scalar === 'float') return around(syntax, typeName(wanted));
  const [number] = value.op === 'constant' ? value.value : [];
  return given.scalar !== 'bool' && number !== undefined ? write(`${typeName(wanted)}(${number}.0)`, syntax) : undefined;
}

/** The type of a variable as that of its value, where that holds all of it. */
export function retypeMend(value: Expression, declared: Type, type: Range): CodeMend | undefined {
  const given = value.type;
  const isWhole = sameType(declared, INT) || sameType(declared, UINT);
  return isWhole && sameType(given, FLOAT) ? write(typeName(given), type, `Declare it as ${typeName(given)}`) : undefined;
}

function scalarMend(value: Expression, given: ScalarName, wanted: ScalarName, syntax: ExpressionSyntax): CodeMend | undefined {
  if (given === 'bool') return undefined;
  const [number] = value.op === 'constant' ? value.value : [];
  if (number !== undefined && wanted !== 'bool') {
    const written = numberIn(wanted, number);
    return written === undefined ? undefined : write(written, syntax);
  }
  if (wanted === 'float') {
    const edits = floatEdits(syntax);
    if (edits) return { label: 'Compute it with floats', edits };
  }
  return around(syntax, wanted);
}

/** A number in the words of a type, which are those of both languages; nothing where the type has no such number. */
export function numberIn(type: Exclude<ScalarName, 'bool'>, number: number): string | undefined {
  if (type === 'float') return Number.isInteger(number) ? `${number}.0` : `${number}`;
  if (!Number.isInteger(number) || (type === 'uint' && number < 0)) return undefined;
  return type === 'uint' ? `${number}u` : `${number}`;
}

/** What makes floats of all that whole numbers are computed from; nothing where nothing is computed, or not by them. */
function floatEdits(syntax: ExpressionSyntax): readonly TextEdit[] | undefined {
  if (syntax.op !== 'binary' || !'+-*/'.includes(syntax.operator)) return undefined;
  const sides = [syntax.left, syntax.right].map((side): readonly TextEdit[] => {
    if (side.op === 'number') return side.kind === 'int' ? [{ from: side.to, to: side.to, text: '.0' }] : [];
    return floatEdits(side) ?? around(side, 'float').edits;
  });
  return sides.flat();
}

/** The dot product, for a product of two vectors that should be a number. */
export function dotMend(value: Expression, syntax: Range & { readonly left?: Range; readonly right?: Range }): CodeMend | undefined {
  const { from, to, left, right } = syntax;
  const isProduct = value.op === 'binary' && value.operator === '*' && sameType(value.left.type, value.right.type);
  if (!isProduct || !left || !right) return undefined;
  return {
    label: 'Write dot( … )',
    edits: [
      { from, to: from, text: 'dot(' },
      { from: left.to, to: right.from, text: ', ' },
      { from: to, to, text: ')' },
    ],
  };
}

/** A constructor or function round what stands there. */
export function around({ from, to }: Range, type: string, last = ''): CodeMend {
  return {
    label: `Write ${type}( …${last} )`,
    edits: [
      { from, to: from, text: `${type}(` },
      { from: to, to, text: `${last})` },
    ],
  };
}

function behind({ from, to, op }: ExpressionSyntax, text: string): CodeMend {
  const simple = op === 'name' || op === 'call' || op === 'member' || op === 'index';
  const edits = simple
    ? [{ from: to, to, text }]
    : [
        { from, to: from, text: '(' },
        { from: to, to, text: `)${text}` },
      ];
  return { label: `Take only “${text}”`, edits };
}
