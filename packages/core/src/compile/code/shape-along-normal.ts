import type { MaterialCode } from '@brelvin/contract';
import type { Library } from '../../catalogue/library';
import type { Expression, Statement } from '../../ir/ir';
import type { Range } from '../../ir/origin';
import { typeName } from '../../ir/types';
import { expressionsOf, walkExpression, walkStatements } from '../../ir/walk';
import { readCode } from './read-code';

const SHAPE = 'shape(Shape)';
const NORMAL = /\b[A-Za-z_]\w*\s*\.\s*normal\b/g;

/**
 * Where a text's `shape` takes the plain normal to say where a vertex goes, directly or through locals: ranges of those
 * statements in the text, in order. What functions do with a whole `Shape` is not looked into.
 */
export function shapeAlongNormal(code: MaterialCode, library: Library): Range[] {
  const { program } = readCode(code, library);
  const declared = program?.has.shape ? program.pixels.functions.find(({ signature }) => signature === SHAPE) : undefined;
  if (!declared) return [];
  const all: Statement[] = [];
  walkStatements(declared.body, (statement) => all.push(statement));
  // Back from what moves the vertex: locals it is made of, and what those are made of.
  const wanted = new Set<string>();
  const moving = new Set<Statement>();
  for (let before = -1; before < moving.size;) {
    before = moving.size;
    for (const statement of all) {
      if (!moves(statement) && !gives(statement, wanted)) continue;
      moving.add(statement);
      for (const expression of expressionsOf(statement)) noteLocals(expression, wanted);
    }
  }
  return [...moving]
    .filter((statement) => expressionsOf(statement).some(readsNormal))
    .flatMap(({ origin }) => origin?.range ?? [])
    .sort((a, b) => a.from - b.from);
}

/** The text with the welded normal in the place of the plain one in these ranges. */
export function goWelded(text: string, ranges: readonly Range[]): string {
  return ranges.reduceRight(
    (left, { from, to }) => left.slice(0, from) + left.slice(from, to).replace(NORMAL, 'surfaceWeldedNormal()') + left.slice(to),
    text,
  );
}

/** Whether it writes the place of a shape. */
function moves(statement: Statement): boolean {
  if (statement.op !== 'assign') return false;
  let { target } = statement;
  while (target.op === 'swizzle' || target.op === 'index') target = target.object;
  return target.op === 'member' && target.field === 'position' && isShape(target.object);
}

function gives(statement: Statement, wanted: ReadonlySet<string>): boolean {
  if (statement.op === 'declare') return wanted.has(statement.name);
  if (statement.op !== 'assign') return false;
  let { target } = statement;
  while (target.op === 'member' || target.op === 'swizzle' || target.op === 'index') target = target.object;
  return target.op === 'reference' && target.scope === 'local' && wanted.has(target.name);
}

function noteLocals(expression: Expression, wanted: Set<string>): void {
  walkExpression(expression, (each) => {
    if (each.op === 'reference' && each.scope === 'local' && !isShape(each)) wanted.add(each.name);
  });
}

function readsNormal(expression: Expression): boolean {
  let found = false;
  walkExpression(expression, (each) => (found ||= each.op === 'member' && each.field === 'normal' && isShape(each.object)));
  return found;
}

function isShape({ type }: Expression): boolean {
  return typeName(type) === 'Shape';
}
