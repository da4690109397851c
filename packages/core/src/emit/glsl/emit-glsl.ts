import type { Expression, Global, IrFunction, Statement } from '../../ir/ir';
import type { Program, StageProgram } from '../../ir/program';
import { LineWriter, type EmittedSource } from '../source-map';
import { glslDeclarator, glslExpression, glslStatementValue, glslType, type ExpressionNames } from './expression';
import { StageNames } from './names';

export interface GlslProgram {
  readonly vertex: EmittedSource;
  readonly fragment: EmittedSource;
}

/**
 * Writes a program as GLSL ES 3.00 for OpenGL ES 3.0 and WebGL2.
 *
 * Brelvin's picture has row 0 at the top and clip space z 0…1; GL has neither. The uniform `deviceTarget` holds
 * (sign of y: −1 drawing into a texture, +1 into a canvas; height of the target in pixels; 0; 0).
 */
export function emitGlsl(program: Program): GlslProgram {
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
  out.line('uniform vec4 deviceTarget;');
  emitDeclarations(stage, written(names), out);
  if (stage.stage === 'fragment') emitFragCoord(out);
  for (const declared of stage.functions) emitFunction(declared, written(names, declared), out);
  emitMain(stage, out);
  return out.finish();
}

/** Names inside of a function, or outside of all. */
function written(names: StageNames, inside?: IrFunction): ExpressionNames {
  const locals = inside && names.locals(inside);
  return {
    functionOf: (signature) => names.functionOf(signature),
    global: (name) => names.global(name),
    local: (name) => locals?.(name) ?? name,
    struct: (name) => names.struct(name),
    field: (struct, name) => names.field(struct, name),
    // Rows count downwards here, upwards on a canvas.
    downwards: (value) => `(dFdy(${value}) * -deviceTarget.x)`,
  };
}

function emitDeclarations(stage: StageProgram, names: ExpressionNames, out: LineWriter): void {
  for (const struct of stage.structs) {
    out.line(`struct ${names.struct(struct.name)} {`);
    out.indented(() =>
      struct.fields.forEach(({ type, name }) => out.line(`${glslDeclarator(type, names.field(struct.name, name), names)};`)),
    );
    out.line('};');
  }
  for (const block of stage.blocks) {
    out.line(`layout(std140) uniform ${names.global(block.name)} {`);
    out.indented(() => block.members.forEach(({ type, name }) => out.line(`${glslDeclarator(type, names.global(name), names)};`)));
    out.line('};');
  }
  const declare = ({ type, name }: Global): string => glslDeclarator(type, names.global(name), names);
  const variable = (storage: string, each: Global): void => out.line(`${each.flat ? 'flat ' : ''}${storage} ${declare(each)};`);
  stage.samplers.forEach((each) => variable('uniform', each));
  stage.inputs.forEach((each) => variable('in', each));
  if (stage.stage === 'vertex') stage.outputs.forEach((each) => variable('out', each));
  else stage.outputs.forEach((each, index) => out.line(`layout(location = ${index}) out ${declare(each)};`));
  for (const each of stage.privates) out.line(`${declare(each)}${each.value ? ` = ${glslStatementValue(each.value, names)}` : ''};`);
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

function emitFunction(declared: IrFunction, names: ExpressionNames, out: LineWriter): void {
  out.line(`${functionHead(declared, names)} {`, declared.origin);
  out.indented(() => emitStatements(declared.body, names, out));
  out.line('}');
  out.line('');
}

/** `vec3 name(vec3 a, out float b)` */
export function functionHead({ signature, parameters, result }: IrFunction, names: ExpressionNames): string {
  const list = parameters.map(
    ({ direction, type, name }) => `${direction === 'in' ? '' : `${direction} `}${glslDeclarator(type, names.local(name), names)}`,
  );
  return `${glslType(result, names)} ${names.functionOf(signature)}(${list.join(', ')})`;
}

export function emitStatements(statements: readonly Statement[], names: ExpressionNames, out: LineWriter): void {
  for (const statement of statements) emitStatement(statement, names, out);
}

function emitStatement(statement: Statement, names: ExpressionNames, out: LineWriter): void {
  const write = (expression: Expression): string => glslStatementValue(expression, names);
  const { origin } = statement;
  const braces = (head: string, body: readonly Statement[], tail = '}'): void => {
    out.line(`${head} {`, origin);
    out.indented(() => emitStatements(body, names, out));
    out.line(tail);
  };
  switch (statement.op) {
    case 'declare': {
      const value = statement.value ? ` = ${write(statement.value)}` : '';
      out.line(`${glslDeclarator(statement.type, names.local(statement.name), names)}${value};`, origin);
      return;
    }
    case 'assign':
      out.line(`${write(statement.target)} = ${write(statement.value)};`, origin);
      return;
    case 'evaluate':
      out.line(`${write(statement.value)};`, origin);
      return;
    case 'if':
      braces(`if (${write(statement.condition)})`, statement.yes, statement.no.length > 0 ? '} else {' : '}');
      if (statement.no.length > 0) {
        out.indented(() => emitStatements(statement.no, names, out));
        out.line('}');
      }
      return;
    case 'loop': {
      // "continue" must still reach the steps, so they stand in the head of a "for".
      const steps = statement.step.map((step) => glslStep(step, names)).join(', ');
      if (statement.testFirst) braces(`for (; ${write(statement.condition)}; ${steps})`, statement.body);
      else braces('do', statement.body, `} while (${write(statement.condition)});`);
      return;
    }
    case 'block':
      out.line('{', origin);
      out.indented(() => emitStatements(statement.body, names, out));
      out.line('}');
      return;
    case 'return':
      out.line(statement.value ? `return ${write(statement.value)};` : 'return;', origin);
      return;
    default:
      out.line(`${statement.op};`, origin);
  }
}

/** A step of a `for` without its semicolon; the parser allows only assignments and calls there. */
function glslStep(step: Statement, names: ExpressionNames): string {
  if (step.op === 'assign') return `${glslExpression(step.target, names)} = ${glslStatementValue(step.value, names)}`;
  if (step.op === 'evaluate') return glslExpression(step.value, names);
  throw new TypeError(`${step.op} can not be a step of a loop`);
}
