import { library } from '../catalogue/library';
import { codeDiagnostics, readCode } from '../compile/code/read-code';
import { BUILTIN_RULES } from '../testing/standard/builtins';
import { EXPRESSION_RULES } from '../testing/standard/expressions';
import { STATEMENT_RULES } from '../testing/standard/statements';
import { TYPE_RULES } from '../testing/standard/types';
import { withEdits } from './diagnostics';
import { SourceText } from './source';

const RULES = [...TYPE_RULES, ...EXPRESSION_RULES, ...STATEMENT_RULES, ...BUILTIN_RULES];

describe('GLSL ES 3.00', () => {
  it('has many rules', () => {
    expect(RULES.length).toBeGreaterThan(400);
  });

  for (const { section, rule, right, wrong } of RULES) {
    it(`${section}: ${rule}`, () => {
      const fed = /uniform (?:highp )?(?:[iu]sampler|sampler3D|\w*sampler2DArray|\w*Shadow)/.test(right);
      const { diagnostics } = readCode({ text: right }, library());
      const errors = diagnostics.filter(
        ({ severity, message }) => severity === 'error' && !(fed && message.includes('cannot be a parameter')),
      );
      expect(errors.map(({ line, column, message }) => `${line}:${column} ${message}`)).toEqual([]);
      if (!wrong) return;
      const [first] = codeDiagnostics({ text: wrong.text }, library()).filter((each) => each.severity === 'error');
      const { line, column } = new SourceText('', wrong.text).position(wrong.at);
      expect(`${first?.line}:${first?.column} ${first?.message}`).toContain(`${line}:${column} `);
      expect(first?.message).toContain(wrong.words);
      for (const { label, edits } of first?.mends ?? []) {
        const mended = withEdits(wrong.text, edits);
        const left = readCode({ text: mended }, library()).diagnostics.filter((each) => each.severity === 'error');
        expect(left.map(({ message }) => message))
          .withContext(`${label}: ${mended}`)
          .toEqual([]);
      }
    });
  }
});
