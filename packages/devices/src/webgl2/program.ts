import { ProgramRefused, type PipelineDescriptor } from '@brelvin/core';

/** A linked program with the places of what is bound to it. */
export interface LinkedProgram {
  readonly program: WebGLProgram;
  /** Block names in the order of their binding points. */
  readonly blocks: readonly string[];
  readonly samplers: readonly { readonly name: string; readonly cube: boolean; readonly location: WebGLUniformLocation }[];
  readonly deviceTarget: WebGLUniformLocation | null;
}

const POLL_MS = 4;

/**
 * Compiles and links without holding up the page where the driver allows it.
 *
 * @throws ProgramRefused
 */
export async function linkProgram(gl: WebGL2RenderingContext, { code, vertexBuffers }: PipelineDescriptor): Promise<LinkedProgram> {
  const parallel = gl.getExtension('KHR_parallel_shader_compile');
  const program = gl.createProgram();
  const shaders = {
    vertex: startCompile(gl, gl.VERTEX_SHADER, code.vertex.text),
    fragment: startCompile(gl, gl.FRAGMENT_SHADER, code.fragment.text),
  };
  gl.attachShader(program, shaders.vertex);
  gl.attachShader(program, shaders.fragment);
  vertexBuffers
    .flatMap((buffer) => buffer.attributes)
    .forEach((attribute, location) => gl.bindAttribLocation(program, location, attribute.name));
  gl.linkProgram(program);
  while (parallel && !gl.isContextLost() && !gl.getProgramParameter(program, parallel.COMPLETION_STATUS_KHR)) await pause(POLL_MS);
  if (!gl.isContextLost() && !gl.getProgramParameter(program, gl.LINK_STATUS)) {
    const refused = refusal(gl, program, shaders);
    gl.deleteProgram(program);
    throw refused;
  }
  gl.deleteShader(shaders.vertex);
  gl.deleteShader(shaders.fragment);
  return { program, ...reflect(gl, program) };
}

function startCompile(gl: WebGL2RenderingContext, type: GLenum, text: string): WebGLShader {
  const shader = gl.createShader(type);
  if (!shader) throw new ProgramRefused('link', 'the graphics context is lost');
  gl.shaderSource(shader, text);
  gl.compileShader(shader);
  return shader;
}

function refusal(gl: WebGL2RenderingContext, program: WebGLProgram, shaders: Record<'vertex' | 'fragment', WebGLShader>): ProgramRefused {
  for (const stage of ['vertex', 'fragment'] as const) {
    if (gl.getShaderParameter(shaders[stage], gl.COMPILE_STATUS)) continue;
    const log = gl.getShaderInfoLog(shaders[stage]) ?? '';
    const line = /ERROR: \d+:(\d+)/.exec(log)?.[1];
    return new ProgramRefused(stage, log, line === undefined ? undefined : Number(line));
  }
  return new ProgramRefused('link', gl.getProgramInfoLog(program) ?? '');
}

function reflect(gl: WebGL2RenderingContext, program: WebGLProgram): Omit<LinkedProgram, 'program'> {
  const blockCount = gl.isContextLost() ? 0 : (gl.getProgramParameter(program, gl.ACTIVE_UNIFORM_BLOCKS) as number);
  const blocks = Array.from({ length: blockCount }, (_, index) => {
    gl.uniformBlockBinding(program, index, index);
    return gl.getActiveUniformBlockName(program, index) ?? '';
  });
  const uniformCount = gl.isContextLost() ? 0 : (gl.getProgramParameter(program, gl.ACTIVE_UNIFORMS) as number);
  const samplers = Array.from({ length: uniformCount }, (_, index) => gl.getActiveUniform(program, index))
    .filter((info) => info?.type === gl.SAMPLER_2D || info?.type === gl.SAMPLER_CUBE)
    .flatMap((info) => {
      const location = info && gl.getUniformLocation(program, info.name);
      return location ? [{ name: info.name, cube: info.type === gl.SAMPLER_CUBE, location }] : [];
    });
  return { blocks, samplers, deviceTarget: gl.getUniformLocation(program, 'deviceTarget') };
}

export function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}
