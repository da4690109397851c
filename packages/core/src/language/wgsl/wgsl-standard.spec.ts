import { library } from '../../catalogue/library';
import { codeDiagnostics, readCode } from '../../compile/code/read-code';
import { WGSL_NAMES_TESTED, WGSL_RULES } from '../../testing/standard/wgsl-rules';
import { withEdits } from '../diagnostics';
import { SourceText } from '../source';
import { WGSL_BUILTIN_NAMES } from './wgsl-calls';

describe('WGSL', () => {
  it('has rules for all its built-in functions', () => {
    expect(WGSL_BUILTIN_NAMES.filter((name) => !WGSL_NAMES_TESTED.includes(name))).toEqual([]);
    expect(WGSL_RULES.length).toBeGreaterThan(250);
  });

  for (const { section, rule, right, wrong } of WGSL_RULES) {
    it(`${section}: ${rule}`, () => {
      const errors = readCode({ text: right }, library()).diagnostics.filter(({ severity }) => severity === 'error');
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
