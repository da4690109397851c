import { reachableFunctions } from './passes';
import type { Expression, Global, IrFunction, Module, Statement, UniformBlock } from './ir';
import type { StructType, Type } from './types';
import { expressionsOf, inner, operands, walkBody, walkExpression, walkStatements } from './walk';

export type Stage = 'vertex' | 'fragment';

/** One stage, linked: only what its `main` reaches, in an order in which everything stands before its use. */
export interface StageProgram {
  readonly stage: Stage;
  readonly structs: readonly StructType[];
  readonly blocks: readonly UniformBlock[];
  readonly inputs: readonly Global[];
  readonly outputs: readonly Global[];
  readonly samplers: readonly Global[];
  readonly privates: readonly Global[];
  readonly functions: readonly IrFunction[];
}

/** Both stages of a pipeline; the vertex stage hands on just what the fragment stage reads. */
export interface Program {
  readonly vertex: StageProgram;
  readonly fragment: StageProgram;
}

const MAIN = 'main()';

/** @throws ReferenceError when a call leads to a function without a body. */
export function linkProgram(vertex: Module, fragment: Module): Program {
  const fragmentStage = linkStage('fragment', fragment);
  const read = new Set(fragmentStage.inputs.map((input) => input.name));
  return { vertex: linkStage('vertex', dropOutputs(vertex, read)), fragment: fragmentStage };
}

export function linkStage(stage: Stage, module: Module): StageProgram {
  const used = new Set<string>();
  const structs = new Map<string, StructType>();
  const noteType = (type: Type): void => {
    if (type.kind === 'array') noteType(type.element);
    if (type.kind !== 'struct' || structs.has(type.name)) return;
    type.fields.forEach((field) => noteType(field.type));
    structs.set(type.name, type);
  };
  const functions = reachableFunctions([MAIN], module.functions, (declared) => {
    const callees: string[] = [];
    noteType(declared.result);
    declared.parameters.forEach((parameter) => noteType(parameter.type));
    walkBody(declared.body, (expression) => {
      noteType(expression.type);
      if (expression.op === 'call') callees.push(expression.callee);
      if (expression.op === 'reference' && expression.scope === 'global') used.add(expression.name);
    });
    return callees;
  });
  for (const declared of functions)
    for (const statement of allStatements(declared.body)) if (statement.op === 'declare') noteType(statement.type);
  const globals = [...module.globals.values()].filter((each) => used.has(each.name));
  for (const { storage, type } of globals) if (storage === 'private') noteType(type);
  const blockNames = new Set(globals.map((each) => each.block));
  return {
    stage,
    structs: [...structs.values()],
    blocks: [...module.blocks.values()].filter((block) => blockNames.has(block.name)),
    inputs: globals.filter((each) => each.storage === 'in'),
    outputs: globals.filter((each) => each.storage === 'out'),
    samplers: globals.filter((each) => each.storage === 'sampler'),
    privates: globals.filter((each) => each.storage === 'private'),
    functions,
  };
}

function* allStatements(body: readonly Statement[]): Generator<Statement> {
  for (const statement of body) {
    yield statement;
    yield* allStatements(inner(statement));
  }
}

/** Takes out assignments to outputs that neither the next stage nor this one reads. */
function dropOutputs(module: Module, next: ReadonlySet<string>): Module {
  if (!module.functions.has(MAIN)) throw new ReferenceError('a program needs void main()');
  const reached = linkStage('vertex', module).functions;
  const read = new Set(next);
  for (const { body } of reached)
    walkStatements(body, (statement) => {
      for (const expression of readBy(statement))
        walkExpression(expression, (each) => {
          if (each.op === 'reference' && each.scope === 'global') read.add(each.name);
        });
    });
  const unread = (statement: Statement): boolean => {
    if (statement.op !== 'assign') return false;
    const { name, scope } = rootOf(statement.target);
    return scope === 'global' && module.globals.get(name)?.storage === 'out' && !read.has(name);
  };
  const kept = reached.map((each): [string, IrFunction] => [each.signature, { ...each, body: without(each.body, unread) }]);
  return { ...module, functions: new Map([...module.functions, ...kept]) };
}

function rootOf(target: Expression): { readonly name: string; readonly scope: 'local' | 'global' } {
  let root = target;
  while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
  return root.op === 'reference' ? root : { name: '', scope: 'local' };
}

/** What a statement reads; what it assigns to as a whole is not read. */
function readBy(statement: Statement): readonly Expression[] {
  if (statement.op !== 'assign') return expressionsOf(statement);
  return statement.target.op === 'reference'
    ? [statement.value]
    : [statement.value, ...operands(statement.target).filter((each) => each.op !== 'reference')];
}

function without(body: readonly Statement[], unwanted: (statement: Statement) => boolean): Statement[] {
  return body
    .filter((statement) => !unwanted(statement))
    .map((statement) => {
      if (statement.op === 'if') return { ...statement, then: without(statement.then, unwanted), else: without(statement.else, unwanted) };
      if (statement.op === 'switch')
        return { ...statement, cases: statement.cases.map((each) => ({ ...each, body: without(each.body, unwanted) })) };
      if (statement.op === 'loop' || statement.op === 'block') return { ...statement, body: without(statement.body, unwanted) };
      return statement;
    });
}
