import { EMPTY_MODULE } from '../ir/ir';
import { NAMED_TYPES, type Type } from '../ir/types';
import type { DeclaredUniform } from './declared-uniform';
import { DiagnosticList } from './diagnostics';
import { tokenize } from './lexer';
import { parse } from './parser';
import { SourceText } from './source';
import type { ExpressionSyntax } from './syntax';
import { elaborateWgsl } from './wgsl/elaborate-wgsl';
import { isWgsl } from './wgsl/is-wgsl';

/**
 * The uniforms that a text declares, whatever else is wrong with it. Reads no names of the library.
 *
 * @param given names that are given from outside, also as members of blocks: these are no parameters
 */
export function uniformsOf(text: string, given: ReadonlySet<string> = new Set()): DeclaredUniform[] {
  if (isWgsl(text)) {
    const { uniforms } = elaborateWgsl('code', text, EMPTY_MODULE, { parameters: true, systemUniforms: given });
    return [...uniforms];
  }
  if (!/\buniform\b/.test(text)) return [];
  const source = new SourceText('code', text);
  const diagnostics = new DiagnosticList(source);
  const found: DeclaredUniform[] = [];
  for (const each of parse(tokenize(source, diagnostics), diagnostics)) {
    if (each.op === 'uniformBlock') {
      for (const { type: written, variables } of each.members)
        for (const { name, from, to, length } of variables) {
          const type = typeOf(written.name, length ?? written.length);
          const unique = each.instance ? `${each.instance.name}_${name}` : name;
          if (type && !found.some((one) => one.name === unique))
            found.push({ name: unique, irName: unique, type, nameRange: { from, to } });
        }
    }
    if (each.op !== 'global' || each.storage !== 'uniform') continue;
    const { declaration, documentation: range } = each;
    for (const variable of declaration.variables) {
      const type = typeOf(declaration.type.name, variable.length ?? declaration.type.length);
      if (!type || found.some(({ name }) => name === variable.name)) continue;
      const nameRange = { from: variable.from, to: variable.to };
      const comment = range && { text: source.slice(range), range };
      found.push({ name: variable.name, irName: variable.name, type, nameRange, comment });
    }
  }
  return found;
}

function typeOf(name: string, length: ExpressionSyntax | undefined): Type | undefined {
  const element = NAMED_TYPES.get(name);
  if (!element || !length) return element;
  return length.op === 'number' ? { kind: 'array', element, length: length.value } : undefined;
}
