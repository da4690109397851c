import type { MaterialCode } from '@brelvin/contract';
import { MOST_CARRIED } from '../limits';
import { renamedIn } from '../../language/tokens-of';

/** How a vertex stage of one's own hands on what the pixel stage was given before: from the mesh, into world space. */
interface HandedOn {
  readonly type: string;
  /** The name it has between the stages: in one stage, what comes in and what goes out cannot share one. */
  readonly out: string;
  readonly attribute: string;
  readonly uniform?: string;
  readonly value: string;
}

/** By the names of `SYSTEM_VARYINGS`. */
const HANDED_ON: Readonly<Record<string, HandedOn>> = {
  position: {
    type: 'vec3',
    out: 'positionOut',
    attribute: 'in vec3 position;',
    uniform: 'uniform mat4 worldFromObject;',
    value: '(worldFromObject * vec4(position, 1.0)).xyz',
  },
  normal: {
    type: 'vec3',
    out: 'normalOut',
    attribute: 'in vec3 normal;',
    uniform: 'uniform mat3 worldNormalFromObject;',
    value: 'normalize(worldNormalFromObject * normal)',
  },
  tangent: {
    type: 'vec3',
    out: 'tangentOut',
    attribute: 'in vec4 tangent;',
    uniform: 'uniform mat4 worldFromObject;',
    value: 'normalize((worldFromObject * vec4(tangent.xyz, 0.0)).xyz)',
  },
  uv: { type: 'vec2', out: 'uvOut', attribute: 'in vec2 uv;', value: 'uv' },
  uv2: { type: 'vec2', out: 'uv2Out', attribute: 'in vec2 uv2;', value: 'uv2' },
  colour: { type: 'vec4', out: 'colourOut', attribute: 'in vec4 colour;', value: 'colour' },
};
const PLACE = 'in vec3 position;';

/**
 * A whole program with a vertex stage to begin from. It places vertices as they were placed, and hands on what the pixel stage
 * reads, which from then on comes from it under another name: the picture stays as it is.
 *
 * @returns or why there can be none
 */
export function withVertexStage({ text }: MaterialCode): MaterialCode | string {
  const read = Object.entries(HANDED_ON).filter(([name]) =>
    new RegExp(`\\bin\\s+(?:(?:low|medium|high)p\\s+)?\\w+\\s+${name}\\s*;`).test(text),
  );
  if (read.length > MOST_CARRIED) {
    const names = read.map(([name]) => name).join(', ');
    return `The pixel stage reads ${read.length} things of the mesh (${names}), and a vertex stage hands on ${MOST_CARRIED} at most. Read fewer first.`;
  }
  const unique = (lines: readonly (string | undefined)[]): string[] => [...new Set(lines.flatMap((line) => line ?? []))];
  const attributes = unique([PLACE, ...read.map(([, { attribute }]) => attribute)]);
  const uniforms = unique(['uniform mat4 clipFromObject;', ...read.map(([, { uniform }]) => uniform)]);
  const outs = read.map(([, { type, out }]) => `out ${type} ${out};`);
  const writes = read.map(([, { out, value }]) => `  ${out} = ${value};`);
  const vertices = [
    ...[...attributes, ...uniforms, ...outs],
    '',
    'void main() {',
    ...writes,
    '  gl_Position = clipFromObject * vec4(position, 1.0);',
    '}',
    '',
  ].join('\n');
  return { text: read.reduce((renamed, [name, { out }]) => renamedIn(renamed, name, out), text), vertices };
}
