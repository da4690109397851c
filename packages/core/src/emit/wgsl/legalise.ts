import { call, constant, local, zeroOf } from '../../ir/build';
import type { Builtin, Expression, IrFunction, Statement } from '../../ir/ir';
import { mapBody } from '../../ir/map-body';
import type { Program, Stage, StageProgram } from '../../ir/program';
import { BOOL, FLOAT, type Type } from '../../ir/types';
import { mapOperands } from '../../ir/walk';
import { lackedFunction } from './lacking';
import { ownFunction } from './own-function';
import { atRuntime, type Use } from './runtime-values';

/** The same program without what WGSL lacks, or refuses although the intermediate form gives it a meaning. */
export function legalise({ vertex, fragment }: Program): Program {
  return { vertex: legalStage(vertex), fragment: legalStage(fragment) };
}

function legalStage(stage: StageProgram): StageProgram {
  const needed = new Map<string, IrFunction>();
  const functions = stage.functions.map((each) => {
    const legal = legalFunction(each, stage.stage);
    for (const helper of legal.helpers) needed.set(helper.signature, helper);
    return legal.declared;
  });
  return { ...stage, functions: [...needed.values(), ...functions] };
}

interface LegalFunction {
  readonly declared: IrFunction;
  /** What it calls that is not its program's own. */
  readonly helpers: readonly IrFunction[];
}

/** The library's functions are the same objects in every program: each is gone through once for each stage. */
const known: Record<Stage, WeakMap<IrFunction, LegalFunction>> = { vertex: new WeakMap(), fragment: new WeakMap() };

function legalFunction(declared: IrFunction, stage: Stage): LegalFunction {
  const found = known[stage].get(declared);
  if (found) return found;
  const helpers = new Map<string, IrFunction>();
  const use = (helper: IrFunction, args: readonly Expression[]): Expression => {
    helpers.set(helper.signature, helper);
    return call(helper, args);
  };
  const change = (expression: Expression): Expression => legalExpression(mapOperands(expression, change), stage, use);
  const body = mapBody(declared.body, change);
  const legal = { declared: { ...declared, body: returning(body, declared.result) }, helpers: [...helpers.values()] };
  known[stage].set(declared, legal);
  return legal;
}

function legalExpression(expression: Expression, stage: Stage, use: Use): Expression {
  switch (expression.op) {
    case 'builtin': {
      const lacked = lackedFunction(expression);
      if (lacked) return use(lacked, expression.args);
      return atRuntime(stage === 'vertex' ? atLevel(expression) : expression, use);
    }
    case 'conditional': {
      // `select` takes numbers and vectors.
      if (expression.type.kind === 'scalar' || expression.type.kind === 'vector') return atRuntime(expression, use);
      return use(choice(expression.type), [expression.then, expression.else, expression.condition]);
    }
    case 'constant':
    case 'reference':
    case 'call':
    case 'member':
      return expression;
    default:
      return atRuntime(expression, use);
  }
}

/** Between vertices there are no slopes: an image is read at a level, the largest where none is said. */
function atLevel(expression: Builtin): Builtin {
  const { name, args } = expression;
  if (!/^texture(Proj)?(Offset)?$/.test(name)) return expression;
  const level = constant(FLOAT, [0]);
  const [image, place, offset] = args;
  if (!image || !place) return expression;
  const moved = name.endsWith('Offset');
  return {
    ...expression,
    name: moved ? name.replace('Offset', 'LodOffset') : `${name}Lod`,
    args: [image, place, level, ...(moved && offset ? [offset] : [])],
  };
}

function choice(type: Type): IrFunction {
  const then: Statement[] = [{ op: 'return', value: local('yes', type) }];
  return ownFunction(
    'choice',
    [
      ['yes', type],
      ['no', type],
      ['which', BOOL],
    ],
    type,
    [
      { op: 'if', condition: local('which', BOOL), then, else: [] },
      { op: 'return', value: local('no', type) },
    ],
  );
}

/** Every way through a function ends in a `return`, seen without working out conditions. */
function returning(body: readonly Statement[], result: Type): readonly Statement[] {
  if (result.kind === 'void' || ends(body.at(-1))) return body;
  return [...body, { op: 'return', value: zeroOf(result) }];
}

function ends(statement: Statement | undefined): boolean {
  if (statement?.op === 'return') return true;
  if (statement?.op === 'block') return ends(statement.body.at(-1));
  return statement?.op === 'if' && ends(statement.then.at(-1)) && ends(statement.else.at(-1));
}
