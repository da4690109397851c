import { library } from '../catalogue/library';
import { inOtherLanguage } from '../compile/code/other-language';
import { codeOptions } from '../compile/code/read-code';
import { evaluateCall } from '../ir/evaluate';
import { components } from '../ir/value';
import { elaborate, formatDiagnostic } from '../language';
import { broken } from './broken';
import { Computing } from './computing';
import { Random } from './random';
import { WellTyped } from './well-typed';

const SEEDS = 400;

/** A material that calls a function, so that its text can be turned over. */
function calling(name: string, text: string, args: string, result: string): string {
  return `${text}vec4 paint(Surface s) { return vec4(${result.replace('CALL', `${name}(${args})`)}); }`;
}

function inWgsl(text: string): string {
  const made = inOtherLanguage({ text }, library());
  return 'text' in made ? made.text : '';
}

describe('Random programs in both languages', () => {
  const options = codeOptions(library());

  it('come to the same, read as GLSL and as WGSL', () => {
    for (let seed = 0; seed < SEEDS; seed++) {
      const { name, text } = new Computing(new Random(seed), 'f').program();
      const glsl = calling(name, text, '0u', 'CALL');
      const wgsl = inWgsl(glsl);
      const results = [glsl, wgsl].map((each) => {
        const { module, diagnostics } = elaborate('code', each, library().module, options);
        const errors = diagnostics.filter(({ severity }) => severity === 'error');
        if (errors.length > 0) return errors.map(formatDiagnostic).join('\n');
        const declared = [...module.functions.values()].find((one) => one.name === name);
        return declared ? components(evaluateCall(declared, [[seed]], { functions: module.functions }).result).join() : 'no function';
      });
      expect(results[1])
        .withContext(`seed ${seed}\n${text}\n${wgsl}`)
        .toBe(results[0] ?? '');
    }
  });

  it('that are well typed are read without an error once they are in WGSL', () => {
    let written = 0;
    for (let seed = 0; seed < SEEDS; seed++) {
      const { name, text } = new WellTyped(new Random(seed), 'f').program();
      const wgsl = inWgsl(calling(name, text, 's.normal, s.uv.x, s.uv, 1', 'CALL'));
      // Only the inverse of a matrix cannot be written.
      if (wgsl === '') continue;
      written++;
      const errors = elaborate('code', wgsl, library().module, options).diagnostics.filter(({ severity }) => severity === 'error');
      expect(errors.map(formatDiagnostic)).withContext(`seed ${seed}\n${wgsl}`).toEqual([]);
    }
    expect(written).toBeGreaterThan(SEEDS * 0.8);
  });

  it('that are broken WGSL are told about, never crashed on', () => {
    let told = 0;
    for (let seed = 0; seed < SEEDS; seed++) {
      const random = new Random(seed);
      const { name, text } = new WellTyped(random, 'f').program();
      const wgsl = inWgsl(calling(name, text, 's.normal, s.uv.x, s.uv, 1', 'CALL'));
      for (let damage = 0; damage < 4; damage++) {
        const damaged = broken(random, wgsl);
        const { diagnostics } = elaborate('code', damaged, library().module, options);
        if (diagnostics.some(({ severity }) => severity === 'error')) told++;
        for (const { range, line, column } of diagnostics)
          expect(range.from >= 0 && range.to <= damaged.length && line > 0 && column > 0)
            .withContext(`seed ${seed}`)
            .toBeTrue();
      }
    }
    expect(told).toBeGreaterThan(SEEDS * 2);
  });
});
