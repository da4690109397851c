import { expectRule } from '../../testing/standard/expect-rule';
import { WGSL_NAMES_TESTED, WGSL_RULES } from '../../testing/standard/wgsl-rules';
import { WGSL_BUILTIN_NAMES } from './wgsl-calls';

describe('WGSL', () => {
  it('has rules for all its built-in functions', () => {
    expect(WGSL_BUILTIN_NAMES.filter((name) => !WGSL_NAMES_TESTED.includes(name))).toEqual([]);
    expect(WGSL_RULES.length).toBeGreaterThan(250);
  });

  for (const each of WGSL_RULES) it(`${each.section}: ${each.rule}`, () => expectRule(each));
});
