import { compileFor, GLSL_TARGET, newCodeMaterial } from '@brelvin/core';
import { BUILTIN_RULES } from '../../../core/src/testing/standard/builtins';
import { EXPRESSION_RULES } from '../../../core/src/testing/standard/expressions';
import type { Rule } from '../../../core/src/testing/standard/rule';
import { STATEMENT_RULES } from '../../../core/src/testing/standard/statements';
import { TYPE_RULES } from '../../../core/src/testing/standard/types';

/** Rules of one test: the page answers in between. */
const PACK = 120;

describe('GLSL ES 3.00, beside the browser', () => {
  const rules = [...TYPE_RULES, ...EXPRESSION_RULES, ...STATEMENT_RULES, ...BUILTIN_RULES];
  let gl: WebGL2RenderingContext;

  beforeAll(() => {
    gl = new OffscreenCanvas(1, 1).getContext('webgl2')!;
  });

  /** What the browser says of a pixel stage; nothing where it takes it. */
  function said(text: string): string {
    const shader = gl.createShader(gl.FRAGMENT_SHADER)!;
    gl.shaderSource(shader, text);
    gl.compileShader(shader);
    const taken = gl.getShaderParameter(shader, gl.COMPILE_STATUS) as boolean;
    const log = taken ? '' : (gl.getShaderInfoLog(shader) ?? 'refused');
    gl.deleteShader(shader);
    return log;
  }

  function check({ section, rule, right }: Rule): void {
    expect(said(right)).withContext(`${section}: ${rule}, as written`).toBe('');
    const { compiled } = compileFor(GLSL_TARGET, newCodeMaterial('m', {}, { text: right }));
    if (compiled) expect(said(compiled.program.fragment.text)).withContext(`${section}: ${rule}, as we write it`).toBe('');
  }

  for (let from = 0; from < rules.length; from += PACK) {
    it(`takes right programs ${from + 1} to ${Math.min(from + PACK, rules.length)}, as written and as we write them`, () => {
      rules.slice(from, from + PACK).forEach(check);
    });
  }
});
