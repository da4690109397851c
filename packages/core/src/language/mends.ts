import type { Expression } from '../ir/ir';
import { FLOAT, INT, sameType, typeName, type Type } from '../ir/types';
import { write, type CodeMend } from './diagnostics';
import type { ExpressionSyntax } from './syntax';

/** How a value can be brought to another type by writing it differently, where that is most likely what is meant. */
export function conversionMend(value: Expression, wanted: Type, syntax: ExpressionSyntax): CodeMend | undefined {
  const given = value.type;
  if (sameType(wanted, FLOAT) && value.op === 'constant' && sameType(given, INT)) return write(`${value.value[0]}.0`, syntax);
  if (given.kind === 'scalar' && wanted.kind === 'scalar') return given.scalar === 'bool' ? undefined : around(syntax, typeName(wanted));
  if (given.kind === 'struct' && given.name === 'Lit' && typeName(wanted) === 'vec3') return around(syntax, 'totalLight');
  if (given.kind === 'vector' && given.scalar === 'float') {
    if (sameType(wanted, FLOAT)) return behind(syntax, '.x');
    if (wanted.kind !== 'vector' || wanted.scalar !== 'float') return undefined;
    if (wanted.size < given.size) return behind(syntax, `.${'xyzw'.slice(0, wanted.size)}`);
    const missing = Array.from({ length: wanted.size - given.size }, (_, index) => (given.size + index === 3 ? '1.0' : '0.0'));
    return around(syntax, typeName(wanted), missing.map((each) => `, ${each}`).join(''));
  }
  if (sameType(given, FLOAT) && wanted.kind === 'vector' && wanted.scalar === 'float') return around(syntax, typeName(wanted));
  return undefined;
}

function around({ from, to }: ExpressionSyntax, type: string, last = ''): CodeMend {
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
