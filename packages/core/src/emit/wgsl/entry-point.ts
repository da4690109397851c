import * as builtin from '../../ir/builtin-variables';
import type { Global } from '../../ir/ir';
import type { Stage, StageProgram } from '../../ir/program';
import { ofSize, scalarOf, VEC4, vector, componentCount, FLOAT, INT, UINT, BOOL, type Type } from '../../ir/types';
import { walkBody } from '../../ir/walk';
import { wgslName, wgslTypeName, type LineWriter } from '../../language';
import { ENTRY_POINTS } from './entry-names';
import type { WgslStageNames } from './names';

interface BuiltinVariable {
  /** Its type in the intermediate form, and in WGSL. */
  readonly type: Type;
  readonly given: Type;
  readonly attribute: string;
  readonly stage: Stage;
  readonly direction: 'in' | 'out';
}

/** WGSL, section 13.3.1.1; WebGPU draws points of one pixel, so that their size is not handed on. */
const BUILTINS: Readonly<Record<string, BuiltinVariable>> = {
  [builtin.CLIP_POSITION]: { type: VEC4, given: VEC4, attribute: 'position', stage: 'vertex', direction: 'out' },
  [builtin.VERTEX_NUMBER]: { type: INT, given: UINT, attribute: 'vertex_index', stage: 'vertex', direction: 'in' },
  [builtin.INSTANCE_NUMBER]: { type: INT, given: UINT, attribute: 'instance_index', stage: 'vertex', direction: 'in' },
  [builtin.PIXEL_PLACE]: { type: VEC4, given: VEC4, attribute: 'position', stage: 'fragment', direction: 'in' },
  [builtin.PIXEL_DEPTH]: { type: FLOAT, given: FLOAT, attribute: 'frag_depth', stage: 'fragment', direction: 'out' },
  [builtin.FRONT_FACING]: { type: BOOL, given: BOOL, attribute: 'front_facing', stage: 'fragment', direction: 'in' },
};

/** A number or vector that goes into a stage or comes out of it. */
interface Field {
  readonly name: string;
  readonly attributes: string;
  readonly type: Type;
  /** The stage's own variable that holds it, or a part of one; nothing where the stage does not know it. */
  readonly place?: string;
  /** What that place holds. */
  readonly held: Type;
}

/** Variables of a stage, whoever gives or takes what is in them. */
export function emitStageVariables(stage: StageProgram, names: WgslStageNames, out: LineWriter): void {
  for (const { name, type } of [...stage.inputs, ...stage.outputs])
    out.line(`var<private> ${names.variable(name)}: ${names.typeOf(type)};`);
  for (const name of builtinsOf(stage)) {
    const type = name === builtin.POINT_SIZE ? FLOAT : BUILTINS[name]?.type;
    if (type) out.line(`var<private> ${names.variable(name)}: ${wgslTypeName(type)};`);
  }
}

/**
 * Takes what the stage before gives, runs the program, and hands on.
 *
 * @param carried what pixels read of what vertices give
 */
export function emitEntryPoint(stage: StageProgram, carried: readonly Global[], names: WgslStageNames, out: LineWriter): void {
  const isVertex = stage.stage === 'vertex';
  const taken = [
    ...(isVertex ? attributesOf(stage, names) : carriedFields(carried, stage.inputs, names)),
    ...builtinFields(stage, 'in', names),
  ];
  const handed = [
    ...builtinFields(stage, 'out', names),
    ...(isVertex ? carriedFields(carried, stage.outputs, names) : pixelFields(stage, names)),
  ];
  emitStruct('StageInput', taken, out);
  emitStruct('StageOutput', handed, out);
  const [input, output] = [taken.length > 0 ? 'given: StageInput' : '', handed.length > 0 ? ' -> StageOutput' : ''];
  out.line(`@${stage.stage} fn ${ENTRY_POINTS[stage.stage]}(${input})${output} {`);
  out.indented(() => {
    for (const { name, place, held, type } of taken) if (place !== undefined) out.line(`${place} = ${as(held, type, `given.${name}`)};`);
    out.line(`${names.main}();`);
    if (handed.length === 0) return;
    const values = handed.map(({ place, held, type }) => (place === undefined ? `${wgslTypeName(type)}()` : as(type, held, place)));
    out.line(`return StageOutput(${values.join(', ')});`);
  });
  out.line('}');
}

function emitStruct(name: string, fields: readonly Field[], out: LineWriter): void {
  if (fields.length === 0) return;
  out.line(`struct ${name} {`);
  out.indented(() => fields.forEach((each) => out.line(`${each.attributes} ${each.name}: ${wgslTypeName(each.type)},`)));
  out.line('}');
}

/** A value of one type as another one: numbers of another sort, or missing components, of which the last one is 1. */
function as(wanted: Type, held: Type, text: string): string {
  const missing = componentCount(wanted) - componentCount(held);
  if (missing > 0) return `${wgslTypeName(wanted)}(${[text, ...Array<string>(missing - 1).fill('0.0'), '1.0'].join(', ')})`;
  return scalarOf(wanted) === scalarOf(held) ? text : `${wgslTypeName(wanted)}(${text})`;
}

function attributesOf({ inputs }: StageProgram, names: WgslStageNames): Field[] {
  return inputs.map(({ name, type }, index) => field(`@location(${index})`, type, names.variable(name), names.variable(name)));
}

function field(attributes: string, type: Type, name: string, place: string | undefined, held: Type = type): Field {
  // A field may have the name of a variable, but reads badly.
  return { attributes, type, name: `${name}_`.replace(/\W+/g, '_').replace(/_+$/, '_'), place, held };
}

/** What goes from stage to stage, number by number and vector by vector, at counted places. */
function carriedFields(carried: readonly Global[], own: readonly Global[], names: WgslStageNames): Field[] {
  const here = new Set(own.map(({ name }) => name));
  let location = 0;
  return carried.flatMap((global) => {
    const name = names.variable(global.name);
    return partsOf(global.type).map(([type, path]) => {
      const smooth = scalarOf(type) === 'float' && !global.flat;
      const attributes = `@location(${location++})${smooth ? '' : ' @interpolate(flat)'}`;
      return field(attributes, type, `${name}${path}`, here.has(global.name) ? `${name}${path}` : undefined);
    });
  });
}

/** A matrix by its columns, an array by its elements, a struct by its fields. */
function partsOf(type: Type, path = ''): (readonly [type: Type, path: string])[] {
  switch (type.kind) {
    case 'matrix':
      return Array.from({ length: type.columns }, (_, column) => [vector(type.rows), `${path}[${column}]`] as const);
    case 'array':
      return Array.from({ length: type.length }, (_, index) => partsOf(type.element, `${path}[${index}]`)).flat();
    case 'struct':
      return type.fields.flatMap((each) => partsOf(each.type, `${path}.${wgslName(each.name)}`));
    default:
      return [[type, path]];
  }
}

/** A colour has four components, whatever the program gives: opaque when it gives no alpha. */
function pixelFields({ outputs }: StageProgram, names: WgslStageNames): Field[] {
  return outputs.map(({ name, type, location }, index) =>
    field(`@location(${location ?? index})`, ofSize(scalarOf(type) ?? 'float', 4), names.variable(name), names.variable(name), type),
  );
}

function builtinFields(stage: StageProgram, direction: 'in' | 'out', names: WgslStageNames): Field[] {
  const used = builtinsOf(stage);
  return Object.entries(BUILTINS).flatMap(([name, { type, given, attribute, stage: of, direction: way }]) => {
    // Where a vertex goes must be said.
    if (of !== stage.stage || way !== direction || !(used.has(name) || name === builtin.CLIP_POSITION)) return [];
    return [field(`@builtin(${attribute})`, given, names.variable(name), used.has(name) ? names.variable(name) : undefined, type)];
  });
}

function builtinsOf({ functions }: StageProgram): ReadonlySet<string> {
  const found = new Set<string>();
  for (const { body } of functions)
    walkBody(body, (each) => {
      if (each.op === 'reference' && each.scope === 'global' && each.name.startsWith('builtin.')) found.add(each.name);
    });
  return found;
}
