import { elaborate, evaluateCall, Random } from '@brelvin/core';

/**
 * How far the driver's result of a built-in may be from the CPU's: so many steps of a 32-bit float at the result, or so much,
 * whichever is more. The CPU rounds the exact result, so these are the bounds of WGSL, section 15.7.4 ("Floating Point Accuracy"), which are
 * those that Vulkan asks of all devices; GLSL ES 3.00 leaves most of them open (section 4.5.1).
 */
interface Bound {
  readonly call: string;
  /** Of each argument, from and to. */
  readonly from: readonly (readonly [number, number])[];
  readonly steps?: number;
  readonly much?: number;
}

const ANY = [-1000, 1000] as const;
const SMALL = [-4, 4] as const;
const UNIT = [-1, 1] as const;
const POSITIVE = [0.001, 1000] as const;

const BOUNDS: readonly Bound[] = [
  ...['abs', 'sign', 'floor', 'ceil', 'trunc', 'roundEven', 'fract'].map((name): Bound => ({ call: `${name}(a)`, from: [ANY], steps: 0 })),
  ...['min', 'max', 'step', 'a + b', 'a - b', 'a * b'].map((name): Bound => ({
    call: /\w+ /.test(name) ? name : `${name}(a, b)`,
    from: [ANY, ANY],
    steps: 0,
  })),
  { call: 'clamp(a, -b, b)', from: [ANY, POSITIVE], steps: 0 },
  { call: 'a / b', from: [ANY, POSITIVE], steps: 3 },
  { call: 'mod(a, b)', from: [ANY, [0.5, 50]], much: 0.001 },
  { call: 'mix(a, b, c)', from: [ANY, ANY, [0, 1]], much: 0.0003 },
  { call: 'smoothstep(-a, b, c)', from: [POSITIVE, POSITIVE, ANY], much: 1e-5 },
  { call: 'radians(a)', from: [ANY], steps: 3 },
  { call: 'degrees(a)', from: [ANY], steps: 3 },
  { call: 'sin(a)', from: [[-Math.PI, Math.PI]], much: 2 ** -11 },
  { call: 'cos(a)', from: [[-Math.PI, Math.PI]], much: 2 ** -11 },
  { call: 'tan(a)', from: [[-1.2, 1.2]], much: 2 ** -8 },
  { call: 'asin(a)', from: [UNIT], much: 2 ** -10 },
  { call: 'acos(a)', from: [UNIT], much: 2 ** -10 },
  { call: 'atan(a)', from: [ANY], steps: 4096 },
  { call: 'atan(a, b)', from: [ANY, POSITIVE], steps: 4096 },
  { call: 'sinh(a)', from: [SMALL], much: 1e-3 },
  { call: 'cosh(a)', from: [SMALL], much: 1e-3 },
  { call: 'tanh(a)', from: [SMALL], much: 1e-4 },
  { call: 'asinh(a)', from: [SMALL], much: 1e-4 },
  { call: 'acosh(a)', from: [[1.01, 100]], much: 1e-4 },
  { call: 'atanh(a)', from: [[-0.9, 0.9]], much: 1e-4 },
  { call: 'exp(a)', from: [[-10, 10]], steps: 32 },
  { call: 'exp2(a)', from: [[-10, 10]], steps: 32 },
  { call: 'log(a)', from: [POSITIVE], steps: 3, much: 2 ** -20 },
  { call: 'log2(a)', from: [POSITIVE], steps: 3, much: 2 ** -20 },
  { call: 'pow(a, b)', from: [[0.01, 10], SMALL], steps: 256 },
  { call: 'sqrt(a)', from: [POSITIVE], steps: 4 },
  { call: 'inversesqrt(a)', from: [POSITIVE], steps: 4 },
  { call: 'length(vec3(a, b, c))', from: [ANY, ANY, ANY], steps: 12 },
  { call: 'distance(vec2(a, b), vec2(c, 1.0))', from: [ANY, ANY, ANY], steps: 12 },
  { call: 'normalize(vec3(a, b, c)).y', from: [ANY, ANY, ANY], much: 1e-6 },
  { call: 'dot(vec3(a, b, c), vec3(c, a, b))', from: [UNIT, UNIT, UNIT], much: 1e-6 },
  { call: 'cross(vec3(a, b, c), vec3(c, a, b)).z', from: [UNIT, UNIT, UNIT], much: 1e-6 },
  { call: 'reflect(vec2(a, b), vec2(0.6, 0.8)).x', from: [UNIT, UNIT], much: 1e-6 },
  { call: 'refract(normalize(vec2(a, -2.0)), vec2(0.0, 1.0), b).y', from: [UNIT, [0.6, 0.9]], much: 1e-5 },
  { call: 'determinant(mat2(a, b, c, 0.5))', from: [UNIT, UNIT, UNIT], much: 1e-6 },
  {
    call: 'inverse(mat2(a, 0.1, 0.2, b))[1].x',
    from: [
      [1, 2],
      [1, 2],
    ],
    much: 1e-6,
  },
  { call: '(mat3(a, b, c, 1, 2, 3, 4, 5, 6) * vec3(c, b, a)).y', from: [UNIT, UNIT, UNIT], much: 1e-5 },
  { call: 'unpackHalf2x16(packHalf2x16(vec2(a, b))).x', from: [UNIT, UNIT], much: 2 ** -11 },
  { call: 'unpackUnorm2x16(packUnorm2x16(vec2(abs(a), b))).x', from: [UNIT, UNIT], much: 2 ** -16 },
  { call: 'unpackSnorm2x16(packSnorm2x16(vec2(a, b))).x', from: [UNIT, UNIT], much: 2 ** -14 },
];

/** Arguments of each; a pixel for each of them. */
const TIMES = 256;

describe('Built-ins on the CPU and by the driver', () => {
  let gl: WebGL2RenderingContext;

  beforeAll(() => {
    gl = new OffscreenCanvas(1, 1).getContext('webgl2')!;
    texture(gl.RGBA32UI);
    gl.bindFramebuffer(gl.FRAMEBUFFER, gl.createFramebuffer());
    gl.framebufferTexture2D(gl.FRAMEBUFFER, gl.COLOR_ATTACHMENT0, gl.TEXTURE_2D, gl.getParameter(gl.TEXTURE_BINDING_2D) as WebGLTexture, 0);
    gl.viewport(0, 0, TIMES, 1);
    texture(gl.RGBA32F);
  });

  afterAll(() => gl.getExtension('WEBGL_lose_context')?.loseContext());

  function texture(format: number): void {
    gl.bindTexture(gl.TEXTURE_2D, gl.createTexture());
    gl.texStorage2D(gl.TEXTURE_2D, 1, format, TIMES, 1);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
    gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
  }

  function driven(call: string, given: Float32Array<ArrayBuffer>): Float32Array {
    gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, TIMES, 1, gl.RGBA, gl.FLOAT, given);
    const head = '#version 300 es\nprecision highp float;\nprecision highp int;\n';
    const vertices = `${head}void main() { gl_Position = vec4(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0, 0.0, 1.0); }`;
    const read = 'vec4 given = texelFetch(all, ivec2(gl_FragCoord.xy), 0); float a = given.x, b = given.y, c = given.z;';
    const pixels = `${head}uniform highp sampler2D all;\nout uvec4 bits;\nvoid main() { ${read} bits = uvec4(floatBitsToUint(${call})); }`;
    const program = gl.createProgram();
    for (const [kind, source] of [
      [gl.VERTEX_SHADER, vertices],
      [gl.FRAGMENT_SHADER, pixels],
    ] as const) {
      const shader = gl.createShader(kind)!;
      gl.shaderSource(shader, source);
      gl.compileShader(shader);
      if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS)) throw new Error(`${call}: ${gl.getShaderInfoLog(shader)}`);
      gl.attachShader(program, shader);
    }
    gl.linkProgram(program);
    gl.useProgram(program);
    gl.drawArrays(gl.TRIANGLES, 0, 3);
    const bits = new Uint32Array(TIMES * 4);
    gl.readPixels(0, 0, TIMES, 1, gl.RGBA_INTEGER, gl.UNSIGNED_INT, bits);
    return new Float32Array(bits.buffer).filter((_, index) => index % 4 === 0);
  }

  for (const [index, { call, from, steps = 0, much = 0 }] of BOUNDS.entries()) {
    it(`come to the same: ${call}, within ${steps} steps or ${much.toPrecision(1)}`, () => {
      const random = new Random(index + 1);
      const given = new Float32Array(TIMES * 4);
      for (let at = 0; at < given.length; at++) {
        const [low, high] = from[at % 4] ?? [0, 1];
        given[at] = low + (high - low) * random.next();
      }
      const { module } = elaborate('builtin', `float f(float a, float b, float c) { return ${call}; }`);
      const declared = module.functions.get('f(float,float,float)')!;
      driven(call, given).forEach((theirs, at) => {
        const args = [...given.slice(at * 4, at * 4 + 3)].map((each) => [each]);
        const [own = NaN] = evaluateCall(declared, args, { functions: module.functions }).result as readonly number[];
        const within = Math.max(much, steps * stepAt(own));
        if (!(Math.abs(theirs - own) <= within)) fail(`${args.join()}: ${own} on the CPU, ${theirs} by the driver`);
      });
      expect(gl.getError()).toBe(gl.NO_ERROR);
    });
  }
});

/** From a 32-bit float to the next one. */
function stepAt(value: number): number {
  return 2 ** Math.max(Math.floor(Math.log2(Math.abs(value) || 2 ** -126)) - 23, -149);
}
