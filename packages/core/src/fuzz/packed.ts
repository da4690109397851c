import type { Module } from '../ir/ir';
import { evaluateCall } from '../ir/evaluate';
import { elaborate } from '../language';
import { Computing } from './computing';
import { Random } from './random';
import type { RandomFunction } from './well-typed';

/** Random functions of a whole number, from a seed on, and the program in which each computes one pixel of a row. */
export interface PackedFunctions {
  readonly first: number;
  readonly functions: readonly RandomFunction[];
  /** Its pixel `n` is function `n` of the seed that it was made of: four words. */
  readonly fragment: Module;
}

/** @throws Error where a right program is refused */
export function packFunctions(first: number, count: number): PackedFunctions {
  const functions = Array.from({ length: count }, (_, index) => new Computing(new Random(first + index), `f${first + index}`).program());
  const calls = functions.map(({ name }, index) => `  if (at == ${index}) result = ${name}(${first + index}u);`).join('\n');
  const own = functions.map(({ text }) => text).join('');
  const text = `out uvec4 result;\n${own}void main() {\n  int at = int(gl_FragCoord.x);\n${calls}\n}\n`;
  const { module, diagnostics } = elaborate('random', text);
  const [error] = diagnostics.filter(({ severity }) => severity === 'error');
  if (error) throw new Error(`a right program is refused: line ${error.line}: ${error.message}`);
  return { first, functions, fragment: module };
}

/** What each of them gives by our own evaluation: four words each. */
export function evaluatePacked({ first, functions, fragment }: PackedFunctions): Uint32Array {
  const all = new Uint32Array(functions.length * 4);
  functions.forEach(({ name }, index) => {
    const declared = fragment.functions.get(`${name}(uint)`);
    if (!declared) throw new ReferenceError(`${name} was written`);
    all.set(evaluateCall(declared, [[first + index]], { functions: fragment.functions }).result as readonly number[], index * 4);
  });
  return all;
}
