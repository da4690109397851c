import { constant, global } from './build';
import type { Declare, Expression, Global, IrFunction, Loop, Statement } from './ir';
import { BOOL, INT, sameType } from './types';
import { inner, walkExpression, expressionsOf } from './walk';

/** Steps that all loops of one invocation may take together. */
export const MOST_STEPS = 4096;

/** Counts the steps of one invocation. */
export const LOOP_STEPS: Global = { name: 'loopSteps', type: INT, storage: 'private', value: constant(INT, [0]) };

const COUNTER = global(LOOP_STEPS.name, INT);
/** Whether a loop was broken off; in the place of the library's, which says no. */
export const RAN_OUT: IrFunction = {
  signature: 'loopsRanOut()',
  name: 'loopsRanOut',
  parameters: [],
  result: BOOL,
  body: [
    {
      op: 'return',
      value: {
        op: 'binary',
        operator: '>=',
        left: COUNTER,
        right: constant(INT, [MOST_STEPS]),
        type: BOOL,
      },
    },
  ],
  origin: { path: 'glue' },
};

/** What a loop of the library is taken for, whose end is not written as a number: it goes round once a light. */
const LIBRARY_STEPS = 8;
const ENDLESS = 1e12;

/**
 * Gives loops whose end is not plain, or too far, a counter that all of one invocation share; when it runs out, they end.
 * Loops that are plainly short cost nothing.
 *
 * @param own the functions to guard, callees before or after their callers
 * @param functions all that they may call
 */
export function guardLoops(own: readonly IrFunction[], functions: ReadonlyMap<string, IrFunction>): IrFunction[] {
  const guard = new LoopGuard(new Map(own.map((each) => [each.signature, each])), functions);
  return own.map((each) => guard.guarded(each));
}

/** Whether any of these functions counts its steps. */
export function countsSteps(functions: readonly IrFunction[]): boolean {
  const reads = (statement: Statement): boolean =>
    (statement.op === 'assign' && statement.target.op === 'reference' && statement.target.name === LOOP_STEPS.name) ||
    inner(statement).some(reads);
  return functions.some((each) => each.body.some(reads));
}

/** Begins its count anew: each run of a material's code has all its steps, also the second one at a pixel. */
export function withAllSteps(declared: IrFunction): IrFunction {
  return { ...declared, body: [{ op: 'assign', target: COUNTER, value: constant(INT, [0]) }, ...declared.body] };
}

class LoopGuard {
  private readonly made = new Map<string, IrFunction>();
  /** Steps of loops without a counter that a call takes. */
  private readonly steps = new Map<string, number>();

  constructor(
    private readonly own: ReadonlyMap<string, IrFunction>,
    private readonly functions: ReadonlyMap<string, IrFunction>,
  ) {}

  guarded(declared: IrFunction): IrFunction {
    this.stepsOf(declared.signature);
    return this.made.get(declared.signature) ?? declared;
  }

  private stepsOf(signature: string): number {
    const known = this.steps.get(signature);
    if (known !== undefined) return known;
    this.steps.set(signature, ENDLESS);
    const own = this.own.get(signature);
    const declared = own ?? this.functions.get(signature);
    const { body, steps } = this.statements(declared?.body ?? [], own !== undefined);
    if (own) this.made.set(signature, { ...own, body });
    this.steps.set(signature, steps);
    return steps;
  }

  private statements(statements: readonly Statement[], mayGuard: boolean): { body: Statement[]; steps: number } {
    let steps = 0;
    let before: Statement | undefined;
    const body = statements.map((statement) => {
      const made = this.statement(statement, before, mayGuard);
      before = statement;
      steps = Math.min(steps + made.steps, ENDLESS);
      return made.statement;
    });
    return { body, steps };
  }

  private statement(statement: Statement, before: Statement | undefined, mayGuard: boolean): { statement: Statement; steps: number } {
    const called = expressionsOf(statement).reduce((sum, each) => sum + this.calls(each), 0);
    switch (statement.op) {
      case 'block': {
        const { body, steps } = this.statements(statement.body, mayGuard);
        return { statement: { ...statement, body }, steps };
      }
      case 'if': {
        const [yes, no] = [this.statements(statement.then, mayGuard), this.statements(statement.else, mayGuard)];
        return { statement: { ...statement, then: yes.body, else: no.body }, steps: called + Math.max(yes.steps, no.steps) };
      }
      case 'loop':
        return this.loop(statement, before, mayGuard);
      default:
        return { statement, steps: called };
    }
  }

  private loop(loop: Loop, before: Statement | undefined, mayGuard: boolean): { statement: Statement; steps: number } {
    const inside = this.statements(loop.body, mayGuard);
    const once =
      1 + inside.steps + this.calls(loop.condition) + loop.step.flatMap(expressionsOf).reduce((sum, each) => sum + this.calls(each), 0);
    const turns = turnsOf(loop, before) ?? (mayGuard ? undefined : LIBRARY_STEPS);
    const steps = turns === undefined ? Infinity : turns * once;
    if (steps <= MOST_STEPS || !mayGuard) return { statement: { ...loop, body: inside.body }, steps: Math.min(steps, ENDLESS) };
    const more: Expression = { op: 'binary', operator: '<', left: COUNTER, right: constant(INT, [MOST_STEPS]), type: BOOL };
    const counted: Expression = {
      op: 'binary',
      operator: '+',
      left: COUNTER,
      right: constant(INT, [Math.min(once, MOST_STEPS)]),
      type: INT,
    };
    const condition: Expression = { op: 'binary', operator: '&&', left: more, right: loop.condition, type: BOOL };
    const body: Statement[] = [{ op: 'assign', target: COUNTER, value: counted }, ...inside.body];
    return { statement: { ...loop, condition, body }, steps: 1 };
  }

  private calls(expression: Expression): number {
    let sum = 0;
    walkExpression(expression, (each) => {
      if (each.op === 'call') sum += this.stepsOf(each.callee);
    });
    return Math.min(sum, ENDLESS);
  }
}

/** How often a loop goes round where that is written as numbers: `for (int i = 0; i < 8; i++)`. */
function turnsOf({ condition, testFirst, body, step }: Loop, before: Statement | undefined): number | undefined {
  if (condition.op === 'constant' && condition.value[0] === 0) return testFirst ? 0 : 1;
  if (condition.op !== 'binary' || condition.left.op !== 'reference' || condition.right.op !== 'constant') return undefined;
  const { name } = condition.left;
  const [only] = step;
  if (step.length !== 1 || only?.op !== 'assign' || only.target.op !== 'reference' || only.target.name !== name) return undefined;
  const { value } = only;
  if (value.op !== 'binary' || value.left.op !== 'reference' || value.left.name !== name || value.right.op !== 'constant') return undefined;
  if (!sameType(condition.left.type, INT) || changes(body, name) || !isStart(before, name)) return undefined;
  const pace = (value.right.value[0] ?? 0) * (value.operator === '+' ? 1 : value.operator === '-' ? -1 : 0);
  const [from, to] = [startOf(before), condition.right.value[0] ?? 0];
  const way = condition.operator === '<=' ? to + 1 - from : condition.operator === '<' ? to - from : undefined;
  const back = condition.operator === '>=' ? from + 1 - to : condition.operator === '>' ? from - to : undefined;
  if (way !== undefined && pace > 0) return Math.max(0, Math.ceil(way / pace));
  return back !== undefined && pace < 0 ? Math.max(0, Math.ceil(back / -pace)) : undefined;
}

function isStart(before: Statement | undefined, name: string): before is Declare {
  return before?.op === 'declare' && before.name === name && before.value?.op === 'constant';
}

function startOf(before: Declare): number {
  return before.value?.op === 'constant' ? (before.value.value[0] ?? 0) : 0;
}

/** Whether anything in the statements may write to a local. */
function changes(statements: readonly Statement[], name: string): boolean {
  return statements.some((statement) => {
    let written = statement.op === 'assign' && rootName(statement.target) === name;
    for (const expression of expressionsOf(statement))
      walkExpression(expression, (each) => {
        // A call may write through it; whether it does is not worth finding out.
        if (each.op === 'call' && each.args.some((arg) => arg.op === 'reference' && arg.name === name)) written = true;
      });
    return written || changes(inner(statement), name);
  });
}

function rootName(target: Expression): string | undefined {
  let root = target;
  while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
  return root.op === 'reference' ? root.name : undefined;
}
