import type { InletValue, MaterialParameter, ParameterType } from '@brelvin/contract';
import { isColour, labelOf } from '../../catalogue/function-kind';
import { linearFromHex } from '../../image/colour-space';
import type { Range } from '../../ir/origin';
import { typeName, type Type } from '../../ir/types';
import { nearestName, readDocumentation, type DeclaredUniform } from '../../language';
import { partsOf } from './uniform-parts';

/** A parameter as its uniform and the comment before it declare it. */
export interface DeclaredParameter extends Omit<MaterialParameter, 'order' | 'uniform' | 'live' | 'image'> {
  readonly uniform: string;
  /** GLSL name of its type. */
  readonly codeType: string;
  readonly nameRange: Range;
}

/** What is odd about a comment or type; the rest of it counts. */
export interface ParameterProblem {
  readonly severity: 'error' | 'warning';
  readonly message: string;
  readonly range: Range;
}

const STOPS = 'vec4[8]';
const TYPES: Readonly<Record<string, ParameterType>> = {
  float: 'number',
  int: 'count',
  uint: 'count',
  bool: 'switch',
  vec2: 'vector',
  vec3: 'vector',
  vec4: 'vector',
  sampler2D: 'image',
  samplerCube: 'image',
  [STOPS]: 'stops',
};
const TAGS = ['value', 'colour', 'heading', 'of', 'inlet', 'source'];

const NUMBER = String.raw`[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?`;
const VALUE = new RegExp(`^((?:${NUMBER}|on|off)(?:[ ,]+${NUMBER})*)(?: +in +(${NUMBER}) *\\.\\. *(${NUMBER}))?(?: +unit +(\\S+))?$`);
const NUMBERS = new RegExp(`^${NUMBER}(?:[ ,]+${NUMBER})*$`);

/** A gradient from black to white, as the stops of an uniform that says nothing else. */
const FIRST_STOPS: readonly number[] = [0, 0, 0, 0, 1, 1, 1, 1];

/** Reads uniforms as parameters: their types, and in the comments before them title, help, default, range, unit and heading. */
export function declaredParameters(uniforms: readonly DeclaredUniform[]): {
  parameters: DeclaredParameter[];
  problems: ParameterProblem[];
} {
  const problems: ParameterProblem[] = [];
  const parameters = uniforms.flatMap((uniform) => {
    const parts = partsOf(uniform);
    if (parts) return parts.flatMap((part) => readParameter(part, problems) ?? []);
    const message = `“${uniform.name}” has more parts than can be edited by hand. Put what is the same for all materials into a const, or what differs from place to place into an image.`;
    problems.push({ severity: 'error', message, range: uniform.nameRange });
    return [];
  });
  return { parameters, problems };
}

function readParameter(
  { name, type, nameRange, comment, fallback }: DeclaredUniform,
  problems: ParameterProblem[],
): DeclaredParameter | undefined {
  const codeType = typeName(type);
  const plain = Object.hasOwn(TYPES, codeType) ? TYPES[codeType] : undefined;
  if (!plain) {
    problems.push({ severity: 'error', message: `“${name}” cannot be a parameter: ${unfed(codeType)}`, range: nameRange });
    return undefined;
  }
  const { title, help, tags } = comment ? readComment(comment.text, comment.range.from) : { title: '', help: '', tags: [] };
  const warn = (message: string, range: Range): void => void problems.push({ severity: 'warning', message, range });
  const of = (tag: string): { text: string; range: Range } | undefined => tags.find((each) => each.name === tag);
  for (const tag of tags) {
    if (TAGS.includes(tag.name)) continue;
    const near = nearestName(tag.name, TAGS);
    warn(`Comments of parameters have no “@${tag.name}”.${near ? ` The nearest is “@${near}”.` : ''}`, tag.range);
  }
  const colour = of('colour');
  const choices = of('of')
    ?.text.split('|')
    .map((each) => each.trim())
    .filter(Boolean);
  const isVec3 = codeType === 'vec3';
  const kind =
    plain === 'vector' && isVec3 && (colour || isColour(name))
      ? 'colour'
      : choices && (plain === 'number' || plain === 'count')
        ? 'choice'
        : plain;
  const value = of('value');
  const [, numbers, low, high, unit] = (value && VALUE.exec(value.text)) ?? [];
  if (value && numbers === undefined) warn('This cannot be read. Write for example: @value 0.5 in 0..1 unit m', value.range);
  const given = colour
    ? colourOf(colour.text)
    : numbers?.split(/[ ,]+/).map((each) => (each === 'on' ? 1 : each === 'off' ? 0 : Number(each)));
  if (colour && !given)
    warn('This is no colour. Write for example: @colour #f0b497, or three numbers: @colour 0.87 0.46 0.31', colour.range);
  const heading = of('heading')?.text;
  const range = low !== undefined && high !== undefined ? { low: Number(low), high: Number(high) } : {};
  if (range.low !== undefined && range.high !== undefined && range.low >= range.high && value) {
    warn(`The range begins at ${range.low} and ends at ${range.high}: the smaller one stands first.`, value.range);
  }
  return {
    uniform: name,
    codeType,
    nameRange,
    name: (title || labelOf(name)).slice(0, 120) || name,
    type: kind,
    value: sized(given ?? fallback, kind, type),
    ...range,
    ...(kind === 'choice' ? { low: 0, high: (choices?.length ?? 1) - 1, choices } : {}),
    ...(heading ? { heading: heading.slice(0, 120) } : {}),
    ...(help ? { help: help.slice(0, 1000) } : {}),
    ...(unit ? { unit: unit.slice(0, 20) } : {}),
  };
}

/** Why a sampler cannot be fed. */
function unfed(codeType: string): string {
  if (codeType.endsWith('Shadow')) return 'shadows are compared by the library; read them with lightHere(i).shadow.';
  if (/^[iu]/.test(codeType)) return 'images of whole numbers cannot be brought in. Take sampler2D and turn its numbers into whole ones.';
  return `images have no layers or depth here (${codeType}). Take sampler2D, or samplerCube for six sides.`;
}

/** A default in the size of its type. */
function sized(given: readonly number[] | undefined, kind: ParameterType, type: Type): InletValue {
  if (kind === 'stops') return given && given.length >= 4 ? given.slice(0, 32) : FIRST_STOPS;
  const size = type.kind === 'vector' ? type.size : 1;
  const [first = 0] = given ?? [];
  if (size === 1) return kind === 'count' || kind === 'choice' ? Math.round(first) : kind === 'switch' ? Number(first !== 0) : first;
  const fallback = given?.length === 1 ? first : kind === 'colour' && !given ? 0.8 : 0;
  return Array.from({ length: size }, (_, index) => given?.[index] ?? fallback);
}

function colourOf(text: string): readonly number[] | undefined {
  const hex = /^#[0-9a-f]{6}$/i.test(text.trim()) ? linearFromHex(text.trim()) : undefined;
  if (hex) return hex;
  const numbers = NUMBERS.test(text.trim()) ? text.trim().split(/[ ,]+/).map(Number) : [];
  return numbers.length === 3 ? numbers : undefined;
}

interface Tag {
  readonly name: string;
  readonly text: string;
  readonly range: Range;
}

/** A comment's title and help, and its tags wherever in it they stand. */
function readComment(text: string, at: number): { title: string; help: string; tags: Tag[] } {
  const marks = [...text.matchAll(/(^|[\s*])@([a-z]+)\b/gi)].map((match) => ({
    name: match[2] ?? '',
    from: match.index + (match[1]?.length ?? 0),
  }));
  const end = text.replace(/\*\/$/, '').length;
  const prose = text.slice(0, marks[0]?.from ?? end);
  const { title, help } = readDocumentation(`${prose.replace(/\*\/$/, '')}*/`);
  const tags = marks.map(({ name, from }, index) => {
    const to = marks[index + 1]?.from ?? end;
    const raw = text.slice(from + name.length + 1, to);
    const words = raw
      .replace(/\n\s*\*?/g, ' ')
      .trim()
      .replace(/\s+/g, ' ')
      .replace(/[.]$/, '');
    return { name, text: words, range: { from: at + from, to: at + from + name.length + 1 + raw.trimEnd().length } };
  });
  return { title, help, tags };
}
