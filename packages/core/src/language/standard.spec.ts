import { expectRule } from '../testing/standard/expect-rule';
import { BUILTIN_RULES } from '../testing/standard/builtins';
import { EXPRESSION_RULES } from '../testing/standard/expressions';
import { STATEMENT_RULES } from '../testing/standard/statements';
import { TYPE_RULES } from '../testing/standard/types';

const RULES = [...TYPE_RULES, ...EXPRESSION_RULES, ...STATEMENT_RULES, ...BUILTIN_RULES];

describe('GLSL ES 3.00', () => {
  it('has many rules', () => {
    expect(RULES.length).toBeGreaterThan(400);
  });

  for (const each of RULES)
    it(`${each.section}: ${each.rule}`, () => {
      const fed = /uniform (?:highp )?(?:[iu]sampler|sampler3D|\w*sampler2DArray|\w*Shadow)/.test(each.right);
      expectRule(each, ({ message }) => fed && message.includes('cannot be a parameter'));
    });
});
