import { evaluateCall } from '../ir/evaluate';
import { components } from '../ir/value';
import { elaborate, formatDiagnostic } from '../language';
import { Computing } from './computing';
import { Random } from './random';

describe('Random programs that compute', () => {
  it('are read without an error, end, and come to something', () => {
    const results = new Set<string>();
    for (let seed = 0; seed < 1000; seed++) {
      const { name, text } = new Computing(new Random(seed), 'f').program();
      const { module, diagnostics } = elaborate('random', text);
      const errors = diagnostics.filter(({ severity }) => severity === 'error');
      expect(errors.map(formatDiagnostic)).withContext(`seed ${seed}\n${text}`).toEqual([]);
      const declared = module.functions.get(`${name}(uint)`);
      if (!declared) continue;
      results.add(components(evaluateCall(declared, [[seed]], { functions: module.functions }).result).join());
    }
    expect(results.size).toBeGreaterThan(900);
  });
});
