import type { Global, IrFunction } from '../../ir/ir';
import type { Program, StageProgram } from '../../ir/program';
import {
  LineWriter,
  printWgslValue,
  wgslName,
  WgslStatementWriter,
  wgslTypeName,
  type EmittedSource,
  type WgslFunctionContext,
} from '../../language';
import { bindingsOf, type ProgramLayout } from '../bindings';
import type { StageTexts } from '../target';
import { emitEntryPoint, emitStageVariables } from './entry-point';
import { samplerName, WgslStageNames } from './names';

/** Writes a legal program as WGSL for WebGPU, each stage as a module of its own. */
export function emitWgsl({ vertex, fragment }: Program, layout: ProgramLayout): StageTexts {
  const write = (stage: StageProgram): EmittedSource => emitStage(stage, layout, fragment.inputs);
  return { vertex: write(vertex), fragment: write(fragment) };
}

function emitStage(stage: StageProgram, layout: ProgramLayout, carried: readonly Global[]): EmittedSource {
  const out = new LineWriter();
  const names = new WgslStageNames(stage);
  const functions = new Map(stage.functions.map((each) => [each.signature, each]));
  // GLSL leaves slopes and reads of images in branches to the author; so does this.
  out.line('diagnostic(off, derivative_uniformity);');
  out.line('');
  emitStructs(stage, names, out);
  emitBindings(stage, layout, names, out);
  emitStageVariables(stage, names, out);
  for (const { name, type, value } of stage.privates) {
    const start = value ? ` = ${printWgslValue(value, new WgslStatementWriter(NOWHERE, contextOf(functions, names), out))}` : '';
    out.line(`var<private> ${names.variable(name)}: ${names.typeOf(type)}${start};`);
  }
  out.line('');
  for (const declared of stage.functions) {
    new WgslStatementWriter(declared, contextOf(functions, names, declared), out).write();
    out.line('');
  }
  emitEntryPoint(stage, carried, names, out);
  return out.finish();
}

/** No function: what stands outside of all. */
const NOWHERE: IrFunction = { signature: '', name: '', parameters: [], result: { kind: 'void' }, body: [], origin: { path: '' } };

function contextOf(functions: ReadonlyMap<string, IrFunction>, names: WgslStageNames, inside?: IrFunction): WgslFunctionContext {
  const written = names.written(inside);
  const images = new Set(inside?.parameters.filter(({ type }) => type.kind === 'sampler').map(({ name }) => name));
  return {
    names: written,
    functions,
    samplerOf: (image) => (images.has(image) ? written.local(samplerName(image)) : names.sampler(image)),
  };
}

function emitStructs(stage: StageProgram, names: WgslStageNames, out: LineWriter): void {
  for (const { name, fields } of stage.structs) {
    out.line(`struct ${names.struct(name)} {`);
    out.indented(() => fields.forEach((field) => out.line(`${wgslName(field.name)}: ${names.typeOf(field.type)},`)));
    out.line('}');
  }
}

/** Uniform blocks, images and their samplers, each at its place. */
function emitBindings(stage: StageProgram, layout: ProgramLayout, names: WgslStageNames, out: LineWriter): void {
  const places = bindingsOf(layout);
  const place = (name: string): string => {
    const { group, binding } = places.get(name) ?? { group: 0, binding: 0 };
    return `@group(${group}) @binding(${binding})`;
  };
  for (const { name, members } of stage.blocks) {
    out.line(`struct ${names.blockType(name)} {`);
    out.indented(() => members.forEach((each) => out.line(`${wgslName(each.name)}: ${names.typeOf(each.type)},`)));
    out.line('}');
    out.line(`${place(name)} var<uniform> ${names.variable(name)}: ${names.blockType(name)};`);
  }
  for (const { name, type } of stage.samplers) {
    out.line(`${place(name)} var ${names.variable(name)}: ${wgslTypeName(type)};`);
    const { group, sampler } = places.get(name) ?? {};
    if (sampler !== undefined) out.line(`@group(${group}) @binding(${sampler}) var ${names.sampler(name)}: sampler;`);
  }
}
