import type { MaterialCode } from '@brelvin/contract';
import { library } from '../../catalogue/library';
import { withEdits } from '../../language';
import { WRONG_DECLARATIONS } from '../../testing/wrong-declarations';
import type { WrongProgram } from '../../testing/wrong-program';
import { WRONG_STATEMENTS } from '../../testing/wrong-statements';
import { codeDiagnostics, readCode } from './read-code';

const WRONG_PROGRAMS = [...WRONG_STATEMENTS, ...WRONG_DECLARATIONS];

function codeOf([form, code]: WrongProgram): MaterialCode {
  const [text, vertices] = typeof code === 'string' ? [code] : code;
  const right = 'vec4 paint(Surface s) {';
  if (form === 'inside') return { text: `${right} ${text} return vec4(1.0); }` };
  return form === 'before' ? { text: `${text}\n${right} return vec4(1.0); }` } : { text: text ?? '', vertices };
}

describe('Wrong programs', () => {
  it('are many', () => {
    expect(WRONG_PROGRAMS.length).toBeGreaterThanOrEqual(150);
    expect(new Set(WRONG_PROGRAMS.map((each) => each[2].replace(/^[^ ]+( \d+:\d+)? /, ''))).size).toBeGreaterThan(130);
  });

  for (const row of WRONG_PROGRAMS) {
    const [, code, said, mend] = row;
    it(`${said} ⟵ ${String(code).replace(/\s+/g, ' ').slice(0, 60)}`, () => {
      const read = codeOf(row);
      const { program } = readCode(read, library());
      const diagnostics = codeDiagnostics(read, library());
      const [first] = diagnostics;
      const place = `${first?.path === 'vertices' ? 'vertices ' : ''}${first?.line}:${first?.column}`;
      expect(`${place} ${first?.severity}: ${first?.message}`).toBe(said);
      expect(program === undefined).toBe(diagnostics.some(({ severity }) => severity === 'error'));
      expect(first?.mends?.[0]?.label).toBe(mend);
      const edits = first?.mends?.[0]?.edits;
      if (!edits || first.path !== 'code') return;
      // What is mended is not said again, and nothing else goes wrong by it.
      const after = readCode({ ...read, text: withEdits(read.text, edits) }, library()).diagnostics;
      const errors = (list: typeof diagnostics): number => list.filter(({ severity }) => severity === 'error').length;
      expect(errors(after)).toBeLessThan(errors(diagnostics) + Number(first.severity === 'warning'));
      expect(after.map(({ range, message }) => `${range.from} ${message}`)).not.toContain(`${first.range.from} ${first.message}`);
    });
  }
});
