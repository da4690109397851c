import { reachableFunctions } from './passes';
import type { Expression, Global, IrFunction, Module, Statement, UniformBlock } from './ir';
import type { StructType, Type } from './types';
import { inner, walkBody } from './walk';

export type Stage = 'vertex' | 'fragment';

/** One stage, linked: only what its `main` reaches, in an order in which everything stands before its use. */
export interface StageProgram {
  readonly stage: Stage;
  readonly structs: readonly StructType[];
  readonly blocks: readonly UniformBlock[];
  readonly inputs: readonly Global[];
  readonly outputs: readonly Global[];
  readonly samplers: readonly Global[];
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
  const blockNames = new Set(globals.map((each) => each.block));
  return {
    stage,
    structs: [...structs.values()],
    blocks: [...module.blocks.values()].filter((block) => blockNames.has(block.name)),
    inputs: globals.filter((each) => each.storage === 'in'),
    outputs: globals.filter((each) => each.storage === 'out'),
    samplers: globals.filter((each) => each.storage === 'sampler'),
    functions,
  };
}

function* allStatements(body: readonly Statement[]): Generator<Statement> {
  for (const statement of body) {
    yield statement;
    yield* allStatements(inner(statement));
  }
}

/** Takes out assignments to outputs that nobody reads. */
function dropOutputs(module: Module, read: ReadonlySet<string>): Module {
  const main = module.functions.get(MAIN);
  if (!main) throw new ReferenceError('a program needs void main()');
  const unread = (target: Expression): boolean => {
    let root = target;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    return root.op === 'reference' && module.globals.get(root.name)?.storage === 'out' && !read.has(root.name);
  };
  const body = main.body.filter((statement) => !(statement.op === 'assign' && unread(statement.target)));
  return { ...module, functions: new Map(module.functions).set(MAIN, { ...main, body }) };
}
