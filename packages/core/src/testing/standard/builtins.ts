import { BUILTIN_FUNCTIONS } from '../../ir/builtins/table';
import { typeName } from '../../ir/types';
import { BUILTINS } from '../../language/builtins';
import { rules, type Row, type Rule } from './rule';

/** Chapter 8: each overload of each built-in function, and a call of each with too many arguments. */
export const BUILTIN_RULES: readonly Rule[] = [...BUILTINS].flatMap(([name, overloads]) => {
  const { section = '', offset, writes } = BUILTIN_FUNCTIONS.get(name) ?? {};
  return rules(
    section,
    overloads.map(({ result, parameters }, index): Row => {
      const types = parameters.map(typeName);
      const uniforms = types.flatMap((type, at) => (type.includes('sampler') ? [`uniform highp ${type} s${at};`] : []));
      const locals = types.flatMap((type, at) =>
        at === writes ? [`${type} v${at};`] : type.includes('sampler') || at === offset ? [] : [`${type} v${at} = ${type}(pixel.x);`],
      );
      const args = types.map((type, at) => (type.includes('sampler') ? `s${at}` : at === offset ? `${type}(1)` : `v${at}`));
      const call = (given: readonly string[]): string => `${typeName(result)} a = ${name}(${given.join(', ')});`;
      const right = `${uniforms.join(' ')}\n¦ ${locals.join(' ')} ${call(args)}`;
      const wrong = `${uniforms.join(' ')}\n¦ ${locals.join(' ')} ${call([...args, 'pixel', 'pixel', 'pixel'])}`.replace(
        ` = ${name}(`,
        ` = ‹${name}(`,
      );
      const label = `${name}(${types.join(', ')})`;
      return index === 0 ? [label, right, wrong, 'does not take'] : [label, right];
    }),
  );
});
