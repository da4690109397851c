import type { Global, IrFunction } from '../../ir/ir';
import type { Program, StageProgram } from '../../ir/program';
import {
  functionHead,
  LineWriter,
  printDeclarator,
  printStatements,
  printValue,
  type EmittedSource,
  type PrintedNames,
} from '../../language';
import type { StageTexts } from '../target';
import { DEVICE_TARGET } from './legalise';
import { StageNames } from './names';

/** Writes a legal program as GLSL ES 3.00 for OpenGL ES 3.0 and WebGL2. */
export function emitGlsl(program: Program): StageTexts {
  return { vertex: emitStage(program.vertex), fragment: emitStage(program.fragment) };
}

function emitStage(stage: StageProgram): EmittedSource {
  const out = new LineWriter();
  const names = new StageNames(stage);
  out.line('#version 300 es');
  out.line('precision highp float;');
  out.line('precision highp int;');
  if (stage.samplers.length > 0) {
    out.line('precision highp sampler2D;');
    out.line('precision highp samplerCube;');
  }
  out.line('');
  out.line(`uniform vec4 ${DEVICE_TARGET};`);
  emitDeclarations(stage, written(names), out);
  if (stage.stage === 'fragment') emitFragCoord(out);
  for (const declared of stage.functions) emitFunction(declared, written(names, declared), out);
  emitMain(stage, out);
  return out.finish();
}

/** Names inside of a function, or outside of all. */
function written(names: StageNames, inside?: IrFunction): PrintedNames {
  const locals = inside && names.locals(inside);
  return {
    functionOf: (signature) => names.functionOf(signature),
    global: (name) => names.global(name),
    local: (name) => locals?.(name) ?? name,
    struct: (name) => names.struct(name),
    field: (struct, name) => names.field(struct, name),
  };
}

function emitDeclarations(stage: StageProgram, names: PrintedNames, out: LineWriter): void {
  for (const struct of stage.structs) {
    out.line(`struct ${names.struct(struct.name)} {`);
    out.indented(() =>
      struct.fields.forEach(({ type, name }) => out.line(`${printDeclarator(type, names.field(struct.name, name), names)};`)),
    );
    out.line('};');
  }
  for (const block of stage.blocks) {
    out.line(`layout(std140) uniform ${names.global(block.name)} {`);
    out.indented(() => block.members.forEach(({ type, name }) => out.line(`${printDeclarator(type, names.global(name), names)};`)));
    out.line('};');
  }
  const declare = ({ type, name }: Global): string => printDeclarator(type, names.global(name), names);
  const variable = (storage: string, each: Global): void => out.line(`${each.flat ? 'flat ' : ''}${storage} ${declare(each)};`);
  stage.samplers.forEach((each) => variable('uniform', each));
  stage.inputs.forEach((each) => variable('in', each));
  if (stage.stage === 'vertex') stage.outputs.forEach((each) => variable('out', each));
  else stage.outputs.forEach((each, index) => out.line(`layout(location = ${index}) out ${declare(each)};`));
  for (const each of stage.privates) out.line(`${declare(each)}${each.value ? ` = ${printValue(each.value, names)}` : ''};`);
  out.line('');
}

function emitFragCoord(out: LineWriter): void {
  out.line('vec4 deviceFragCoord() {');
  out.indented(() => {
    out.line('float row = deviceTarget.x < 0.0 ? gl_FragCoord.y : deviceTarget.y - gl_FragCoord.y;');
    out.line('return vec4(gl_FragCoord.x, row, gl_FragCoord.zw);');
  });
  out.line('}');
  out.line('');
}

function emitMain(stage: StageProgram, out: LineWriter): void {
  out.line('void main() {');
  out.indented(() => {
    out.line('programMain();');
    if (stage.stage === 'vertex') {
      out.line('gl_Position = vec4(gl_Position.x, gl_Position.y * deviceTarget.x, 2.0 * gl_Position.z - gl_Position.w, gl_Position.w);');
    }
  });
  out.line('}');
}

function emitFunction(declared: IrFunction, names: PrintedNames, out: LineWriter): void {
  out.line(`${functionHead(declared, names)} {`, declared.origin);
  out.indented(() => printStatements(declared.body, names, out));
  out.line('}');
  out.line('');
}
