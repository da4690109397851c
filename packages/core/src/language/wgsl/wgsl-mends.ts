import { sameType, type Type } from '../../ir/types';
import type { CodeMend } from '../diagnostics';
import { write } from '../diagnostics';
import { around, dotMend, numberIn } from '../mends';
import type { WgslExpression } from './wgsl-syntax';
import { wgslTypeName } from './wgsl-types';
import type { WgslValue } from './wgsl-value';

/** How a value can be brought to another type by writing it differently, as `conversionMend` of GLSL. */
export function wgslConversion({ value, abstract }: WgslValue, wanted: Type, syntax: WgslExpression): CodeMend | undefined {
  const given = value.type;
  if (abstract && sameType(given, wanted)) return undefined;
  const words = wgslTypeName(wanted);
  if (given.kind === 'scalar' && wanted.kind === 'scalar' && given.scalar !== 'bool') {
    if (wanted.scalar === 'bool') return undefined;
    const [number] = value.op === 'constant' ? value.value : [];
    if (number === undefined) return around(syntax, words);
    const written = numberIn(wanted.scalar, number);
    return written === undefined ? undefined : write(written, syntax);
  }
  if (given.kind === 'scalar' && wanted.kind === 'vector' && given.scalar === wanted.scalar) return around(syntax, words);
  if (given.kind !== 'vector' || given.scalar !== 'float') return undefined;
  if (wanted.kind === 'scalar' && wanted.scalar === 'float') return dotMend(value, syntax);
  if (wanted.kind !== 'vector' || wanted.scalar !== 'float') return undefined;
  if (wanted.size < given.size) {
    const taken = `.${'xyzw'.slice(0, wanted.size)}`;
    return { label: `Take only “${taken}”`, edits: [{ from: syntax.to, to: syntax.to, text: taken }] };
  }
  const missing = Array.from({ length: wanted.size - given.size }, (_, index) => (given.size + index === 3 ? ', 1.0' : ', 0.0'));
  return around(syntax, words, missing.join(''));
}
