import { BOOL, componentCount, matrix, sameType, scalarOf, vector, type Type } from '../ir/types';

/** What else can be said of an operator that does not work. */
export function logicHint(operator: string): string {
  if (operator === '&&' || operator === '||' || operator === '^^') return ' Both sides must be bool.';
  return operator === '<' || operator === '>' || operator === '<=' || operator === '>=' ? ' Only two numbers can be compared so.' : '';
}

/** The type of `left operator right`, GLSL ES 3.00 section 5.9; undefined where there is none. */
export function binaryType(operator: string, left: Type, right: Type): Type | undefined {
  const equal = sameType(left, right);
  switch (operator) {
    case '==':
    case '!=':
      return equal && left.kind !== 'sampler' ? BOOL : undefined;
    case '<':
    case '>':
    case '<=':
    case '>=':
      return equal && left.kind === 'scalar' && left.scalar !== 'bool' ? BOOL : undefined;
    case '&&':
    case '||':
    case '^^':
      return sameType(left, BOOL) && equal ? BOOL : undefined;
  }
  if (operator === '<<' || operator === '>>') return shiftedType(left, right);
  const scalar = scalarOf(left);
  if (!scalar || scalar === 'bool' || scalar !== scalarOf(right)) return undefined;
  const integersOnly = ['%', '&', '|', '^'].includes(operator);
  if (integersOnly && scalar === 'float') return undefined;
  if (operator === '*') {
    // Section 5.9: the columns of the left are as many as the rows of the right.
    if (left.kind === 'matrix' && right.kind === 'vector') return left.columns === right.size ? vector(left.rows) : undefined;
    if (left.kind === 'vector' && right.kind === 'matrix') return left.size === right.rows ? vector(right.columns) : undefined;
    if (left.kind === 'matrix' && right.kind === 'matrix')
      return left.columns === right.rows ? matrix(right.columns, left.rows) : undefined;
  }
  if (equal) return left;
  if (left.kind === 'scalar') return right;
  return right.kind === 'scalar' ? left : undefined;
}

/** What is shifted keeps its type; by how far may be of either sign, for each component or for all (section 5.9). */
function shiftedType(left: Type, right: Type): Type | undefined {
  const whole = (type: Type): boolean => scalarOf(type) === 'int' || scalarOf(type) === 'uint';
  if (!whole(left) || !whole(right)) return undefined;
  const sizes = componentCount(left) === componentCount(right) || right.kind === 'scalar';
  return sizes ? left : undefined;
}
