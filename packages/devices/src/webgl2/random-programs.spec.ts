import { compileFor, GLSL_TARGET, newCodeMaterial, Random, WellTyped } from '@brelvin/core';

/** Random functions in one program of the driver. */
const PACK = 64;
const RANDOM_PROGRAMS = 5000;

describe('GLSL, beside the driver', () => {
  it(`takes ${RANDOM_PROGRAMS} random programs, ${PACK} in each program of the driver`, () => {
    const gl = new OffscreenCanvas(1, 1).getContext('webgl2')!;
    let taken = 0;
    for (let first = 0; first < RANDOM_PROGRAMS; first += PACK) {
      const functions = Array.from({ length: Math.min(PACK, RANDOM_PROGRAMS - first) }, (_, index) =>
        new WellTyped(new Random(first + index), `f${first + index}`).program(),
      );
      const sum = functions.map(({ name }) => `${name}(s.normal, s.uv.x, s.uv, int(s.copy))`).join(' + ');
      const text = `${functions.map((each) => each.text).join('')}vec4 paint(Surface s) { return ${sum}; }`;
      const { compiled, problems } = compileFor(GLSL_TARGET, newCodeMaterial('random', {}, { text }));
      expect(problems).withContext(`seeds from ${first}`).toEqual([]);
      const shader = gl.createShader(gl.FRAGMENT_SHADER)!;
      gl.shaderSource(shader, compiled!.program.fragment.text);
      gl.compileShader(shader);
      const good = gl.getShaderParameter(shader, gl.COMPILE_STATUS) as boolean;
      if (!good) fail(`seeds from ${first}: ${gl.getShaderInfoLog(shader)}`);
      else taken += functions.length;
      gl.deleteShader(shader);
    }
    expect(taken).toBe(RANDOM_PROGRAMS);
  }, 240_000);
});
