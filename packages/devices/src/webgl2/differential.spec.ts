import { compileFor, Computing, elaborate, evaluateCall, GLSL_TARGET, newCodeMaterial, Random, type RandomFunction } from '@brelvin/core';

/** Programs of one shader, each for one pixel. */
const PACK = 10;
/** All 10,000 take minutes; they are run by hand when the language changes. */
const PROGRAMS = 1_000;
/** Packs of one test: the page answers in between. */
const PACKS = 25;

describe('Computing on the CPU and by the driver', () => {
  let gl: WebGL2RenderingContext;
  const HEAD = '#version 300 es\nprecision highp float;\nprecision highp int;\n';

  /** A context of its own for each test: one that is lost spoils no other. */
  beforeEach(fresh);

  function fresh(): void {
    // A page may hold a few at a time.
    gl?.getExtension('WEBGL_lose_context')?.loseContext();
    gl = new OffscreenCanvas(1, 1).getContext('webgl2')!;
    gl.bindTexture(gl.TEXTURE_2D, gl.createTexture());
    gl.texStorage2D(gl.TEXTURE_2D, 1, gl.RGBA32UI, PACK, 1);
    gl.bindFramebuffer(gl.FRAMEBUFFER, gl.createFramebuffer());
    gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, gl.getParameter(gl.TEXTURE_BINDING_2D) as WebGLTexture, 0);
    gl.viewport(0, 0, PACK, 1);
  }

  afterEach(() => gl.getExtension('WEBGL_lose_context')?.loseContext());

  /** The same, each by itself where the software driver gives up on all of them in one shader. */
  async function drivenAll(functions: readonly RandomFunction[], first: number, asWritten: boolean): Promise<Uint32Array> {
    const pixels = driven(asWritten ? functions : written(functions), first);
    // That it was given up is only heard later; at first there is nothing in the picture.
    if (pixels.some((each) => each !== 0)) return pixels;
    await new Promise((resolve) => setTimeout(resolve, 1000));
    const all = new Uint32Array(PACK * 4);
    functions.forEach((each, index) => {
      fresh();
      all.set(driven(asWritten ? [each] : written([each]), first + index).slice(0, 4), index * 4);
      expect(gl.isContextLost())
        .withContext(`seed ${first + index} alone`)
        .toBeFalse();
    });
    return all;
  }

  /** Runs programs, one for each pixel, on its own number. */
  function driven(functions: readonly RandomFunction[], first: number): Uint32Array {
    const calls = functions.map(({ name }, index) => `  if (at == ${index}) result = ${name}(${first + index}u);`).join('\n');
    const text = `${HEAD}out uvec4 result;\n${functions.map((each) => each.text).join('')}void main() {\n  int at = int(gl_FragCoord.x);\n${calls}\n}\n`;
    const program = gl.createProgram();
    const vertices = `${HEAD}void main() { gl_Position = vec4(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0, 0.0, 1.0); }`;
    for (const [kind, source] of [
      [gl.VERTEX_SHADER, vertices],
      [gl.FRAGMENT_SHADER, text],
    ] as const) {
      const shader = gl.createShader(kind)!;
      gl.shaderSource(shader, source);
      gl.compileShader(shader);
      if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS) && !gl.isContextLost())
        throw new Error(`${gl.getShaderInfoLog(shader)}\n${text}`);
      gl.attachShader(program, shader);
      gl.deleteShader(shader);
    }
    gl.linkProgram(program);
    gl.useProgram(program);
    gl.drawArrays(gl.TRIANGLES, 0, 3);
    const pixels = new Uint32Array(PACK * 4);
    gl.readPixels(0, 0, PACK, 1, gl.RGBA_INTEGER, gl.UNSIGNED_INT, pixels);
    gl.deleteProgram(program);
    return pixels;
  }

  /** The functions as we write them. */
  function written(functions: readonly RandomFunction[]): RandomFunction[] {
    const sum = functions.map(({ name }) => `${name}(0u)`).join(' ^ ');
    const text = `${functions.map((each) => each.text).join('')}vec4 paint(Surface s) { return vec4(${sum}); }`;
    const { compiled, problems } = compileFor(GLSL_TARGET, newCodeMaterial('m', {}, { text }));
    if (!compiled) throw new Error(problems.map(({ message }) => message).join());
    const all = compiled.program.fragment.text;
    const structs = [...all.matchAll(/^struct f\w* \{[^}]*\};\n/gm)].map(([each]) => each).join('');
    // Loops whose end is not plain count their steps.
    const counter = 'int loopSteps = 0;\nbool loopsRanOutBefore = false;\n';
    const own = [...all.matchAll(/^(?:uvec4|int|float) f\d+\w*\([^]*?^\}\n/gm)].map(([each]) => each).join('');
    return functions.map(({ name }, index) => ({ name, text: index === 0 ? `${structs}${counter}${own}` : '' }));
  }

  for (let from = 0; from < PROGRAMS; from += PACK * PACKS) {
    it(`comes to the same, bit by bit, in programs ${from + 1} to ${from + PACK * PACKS}`, async () => {
      for (let first = from; first < from + PACK * PACKS; first += PACK) {
        // As written and as we write them in turn.
        const asWritten = (first / PACK) % 2 === 0;
        const functions = Array.from({ length: PACK }, (_, index) =>
          new Computing(new Random(first + index), `f${first + index}`).program(),
        );
        const { module } = elaborate('random', functions.map((each) => each.text).join(''));
        const own = functions.map(({ name }, index) => {
          const declared = module.functions.get(`${name}(uint)`)!;
          return evaluateCall(declared, [[first + index]], { functions: module.functions }).result as readonly number[];
        });
        const pixels = await drivenAll(functions, first, asWritten);
        own.forEach((result, index) => {
          const theirs = [...pixels.slice(index * 4, index * 4 + 4)];
          if (theirs.join() !== result.join())
            fail(`seed ${first + index}: ${result.join()} on the CPU, ${theirs.join()} by the driver\n${functions[index]!.text}`);
        });
      }
      expect(gl.getError()).toBe(gl.NO_ERROR);
    });
  }
});
