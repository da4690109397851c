import { ProgramRefused, type ProgramDescriptor, type ProgramLayout } from '@brelvin/core';

/** A linked program with the places of what is bound to it. */
export interface LinkedProgram {
  readonly program: WebGLProgram;
  /** Of each group; nothing where the driver has left something out. */
  readonly places: readonly GroupPlaces[];
  readonly deviceTarget: WebGLUniformLocation | null;
}

/** In the order of a group's layout. */
interface GroupPlaces {
  /** Binding points. */
  readonly blocks: readonly (number | undefined)[];
  /** Texture units. */
  readonly textures: readonly (number | undefined)[];
}

const POLL_MS = 4;

/**
 * Compiles and links without holding up the page where the driver allows it.
 *
 * @throws ProgramRefused
 */
export async function linkProgram(gl: WebGL2RenderingContext, descriptor: ProgramDescriptor): Promise<LinkedProgram> {
  const parallel = gl.getExtension('KHR_parallel_shader_compile');
  const begun = beginLink(gl, descriptor);
  while (parallel && !gl.isContextLost() && !gl.getProgramParameter(begun.program, parallel.COMPLETION_STATUS_KHR)) await pause(POLL_MS);
  return endLink(gl, begun, descriptor);
}

/**
 * Compiles and links, and holds up the page until the driver is done.
 *
 * @throws ProgramRefused
 */
export function linkProgramNow(gl: WebGL2RenderingContext, descriptor: ProgramDescriptor): LinkedProgram {
  return endLink(gl, beginLink(gl, descriptor), descriptor);
}

interface BegunLink {
  readonly program: WebGLProgram;
  readonly shaders: Record<'vertex' | 'fragment', WebGLShader>;
}

function beginLink(gl: WebGL2RenderingContext, { code, vertexBuffers }: ProgramDescriptor): BegunLink {
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
  return { program, shaders };
}

function endLink(gl: WebGL2RenderingContext, { program, shaders }: BegunLink, { code }: ProgramDescriptor): LinkedProgram {
  if (!gl.isContextLost() && !gl.getProgramParameter(program, gl.LINK_STATUS)) {
    const refused = refusal(gl, program, shaders);
    gl.deleteProgram(program);
    throw refused;
  }
  gl.deleteShader(shaders.vertex);
  gl.deleteShader(shaders.fragment);
  return { program, places: places(gl, program, code.layout), deviceTarget: gl.getUniformLocation(program, 'deviceTarget') };
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

/** Gives every block its binding point and every sampler its unit, once and for all. */
function places(gl: WebGL2RenderingContext, program: WebGLProgram, layout: ProgramLayout): readonly GroupPlaces[] {
  if (gl.isContextLost()) return layout.map(() => ({ blocks: [], textures: [] }));
  let [point, unit] = [0, 0];
  gl.useProgram(program);
  return layout.map(({ blocks, textures }) => ({
    blocks: blocks.map((name) => {
      const index = gl.getUniformBlockIndex(program, name);
      if (index === gl.INVALID_INDEX) return undefined;
      gl.uniformBlockBinding(program, index, point);
      return point++;
    }),
    textures: textures.map(({ name }) => {
      const location = gl.getUniformLocation(program, name);
      if (!location) return undefined;
      gl.uniform1i(location, unit);
      return unit++;
    }),
  }));
}

export function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}
