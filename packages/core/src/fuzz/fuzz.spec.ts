import { library } from '../catalogue/library';
import { codeOptions } from '../compile/code/read-code';
import { elaborate, formatDiagnostic } from '../language';
import { broken } from './broken';
import { Random } from './random';
import { WellTyped } from './well-typed';

describe('Random programs', () => {
  it('are the same for the same seed', () => {
    const text = (seed: number): string => new WellTyped(new Random(seed), 'f').program().text;
    expect(text(7)).toBe(text(7));
    expect(text(7)).not.toBe(text(8));
  });

  it('that are well typed are read without an error', () => {
    for (let seed = 0; seed < 1000; seed++) {
      const { text } = new WellTyped(new Random(seed), 'f').program();
      const errors = elaborate('random', text).diagnostics.filter(({ severity }) => severity === 'error');
      expect(errors.map(formatDiagnostic)).withContext(`seed ${seed}\n${text}`).toEqual([]);
    }
  });

  it('that are broken are told about, never crashed on: 5,000', () => {
    const options = codeOptions(library());
    let told = 0;
    for (let seed = 0; seed < 5000; seed++) {
      const random = new Random(seed);
      const text = broken(random, new WellTyped(random, 'f').program().text);
      const { diagnostics } = elaborate('random', text, library().module, options);
      if (diagnostics.some(({ severity }) => severity === 'error')) told++;
      for (const { range, line, column } of diagnostics)
        expect(range.from >= 0 && range.to <= text.length && line > 0 && column > 0)
          .withContext(`seed ${seed}`)
          .toBeTrue();
    }
    // Some damage hits a comment, or nothing that counts.
    expect(told).toBeGreaterThan(4000);
  });
});
