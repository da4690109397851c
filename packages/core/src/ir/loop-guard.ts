import { constant, global } from './build';
import type { BinaryOperator, Declare, Expression, Global, IrFunction, Loop, Statement } from './ir';
import { BOOL, FLOAT, INT, sameType, type Type } from './types';
import type { Origin } from './origin';
import { anyExpression, expressionsOf, inner, walkExpression, walkStatements } from './walk';

/** Steps that all loops of one invocation may take together whose end is not plain. */
export const MOST_STEPS = 4096;
/** Steps that a loop may take whose end is plain, with those inside of it: what a device can be expected to do at each pixel. */
export const MOST_PLAIN_STEPS = 65_536;

/** Counts the steps of one run of a material's code. */
const LOOP_STEPS: Global = { name: 'loopSteps', type: INT, storage: 'private', value: constant(INT, [0]) };
/** Whether the steps of an earlier run at the same pixel ran out. */
const EARLIER: Global = { name: 'loopsRanOutBefore', type: BOOL, storage: 'private', value: constant(BOOL, [0]) };
/** What programs with counted loops declare. */
export const STEP_COUNTERS: readonly Global[] = [LOOP_STEPS, EARLIER];

const COUNTER = global(LOOP_STEPS.name, INT);
const RAN_OUT_NOW: Expression = { op: 'binary', operator: '>=', left: COUNTER, right: constant(INT, [MOST_STEPS]), type: BOOL };
const RAN_OUT_BEFORE = global(EARLIER.name, BOOL);
const EVER: Expression = { op: 'binary', operator: '||', left: RAN_OUT_BEFORE, right: RAN_OUT_NOW, type: BOOL };
/** Whether a loop was broken off; in the place of the library's, which says no. */
export const RAN_OUT: IrFunction = {
  signature: 'loopsRanOut()',
  name: 'loopsRanOut',
  parameters: [],
  result: BOOL,
  body: [{ op: 'return', value: EVER }],
  origin: { path: 'glue' },
};

/** What a loop of the library is taken for, whose end is not written as a number: it goes round once a light. */
const LIBRARY_STEPS = 8;
/** The library's number of lights: as many turns at most. */
const LIGHT_COUNT = 'lightsInUse()';
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

/** Where loops stand that count their steps. */
export function countedLoops(functions: readonly IrFunction[]): Origin[] {
  const found: Origin[] = [];
  for (const { body } of functions)
    walkStatements(body, (statement) => {
      if (statement.op === 'loop' && statement.origin && isCounted(statement)) found.push(statement.origin);
    });
  return found;
}

function isCounted({ condition }: Loop): boolean {
  return anyExpression(condition, (each) => each.op === 'reference' && each.name === LOOP_STEPS.name);
}

/** Begins its count anew: each run of a material's code has all its steps, also the second one at a pixel. */
export function withAllSteps(declared: IrFunction): IrFunction {
  const remember: Statement = { op: 'assign', target: RAN_OUT_BEFORE, value: EVER };
  return { ...declared, body: [remember, { op: 'assign', target: COUNTER, value: constant(INT, [0]) }, ...declared.body] };
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
      case 'switch': {
        const made = statement.cases.map((each) => ({ each, ...this.statements(each.body, mayGuard) }));
        // A case may fall through to all that follow.
        const steps = made.reduce((sum, each) => sum + each.steps, called);
        return { statement: { ...statement, cases: made.map(({ each, body }) => ({ ...each, body })) }, steps: Math.min(steps, ENDLESS) };
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
    const turns = turnsOf(loop, before, this.functions) ?? (mayGuard ? undefined : LIBRARY_STEPS);
    const steps = turns === undefined ? Infinity : turns * once;
    if (steps <= MOST_PLAIN_STEPS || !mayGuard) return { statement: { ...loop, body: inside.body }, steps: Math.min(steps, ENDLESS) };
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
export function turnsOf(
  { condition, testFirst, body, step }: Loop,
  before: Statement | undefined,
  functions: ReadonlyMap<string, IrFunction>,
): number | undefined {
  if (condition.op === 'constant' && condition.value[0] === 0) return testFirst ? 0 : 1;
  const compared = comparison(condition);
  if (!compared) return undefined;
  const { name } = compared;
  const paces = step.filter((each) => each.op === 'assign' && each.target.op === 'reference' && each.target.name === name);
  const [only] = paces;
  if (paces.length !== 1 || only?.op !== 'assign') return undefined;
  const { value } = only;
  if (value.op !== 'binary' || value.left.op !== 'reference' || value.left.name !== name || value.right.op !== 'constant') return undefined;
  const others = step.filter((each) => each !== only);
  if (changes([...body, ...others], name, functions) || !isStart(before, name)) return undefined;
  const pace = (value.right.value[0] ?? 0) * (value.operator === '+' ? 1 : value.operator === '-' ? -1 : 0);
  return turnsTo(compared, startOf(before), pace);
}

function turnsTo({ operator, to, type }: Comparison, from: number, pace: number): number | undefined {
  const float = sameType(type, FLOAT);
  // A float that is large beside its step may stand still, and an unsigned number goes on below 0.
  if (pace === 0 || (float && Math.abs(pace) < 1e-6 * Math.max(Math.abs(from), Math.abs(to)))) return undefined;
  if (pace < 0 && !float && !sameType(type, INT)) return undefined;
  const way = (to - from) / pace;
  if (operator === '!=') return !float && way >= 0 && Number.isInteger(way) ? way : undefined;
  const forth = operator === '<' || operator === '<=' ? 1 : operator === '>' || operator === '>=' ? -1 : 0;
  if (forth !== Math.sign(pace)) return undefined;
  const turns = Math.max(0, operator.endsWith('=') ? Math.floor(way) + 1 : Math.ceil(way));
  // Steps of a float add up to a little more or less.
  return float ? turns + 1 : turns;
}

interface Comparison {
  readonly name: string;
  readonly type: Type;
  readonly operator: BinaryOperator;
  readonly to: number;
}

const TURNED: Partial<Record<BinaryOperator, BinaryOperator>> = { '<': '>', '<=': '>=', '>': '<', '>=': '<=', '!=': '!=' };

/** A local beside a number, whichever stands first. */
function comparison(condition: Expression): Comparison | undefined {
  if (condition.op !== 'binary') return undefined;
  const { left, right, operator } = condition;
  if (left.op === 'reference' && right.op === 'call' && right.callee === LIGHT_COUNT)
    return { name: left.name, type: left.type, operator, to: LIBRARY_STEPS };
  if (left.op === 'reference' && right.op === 'constant') return { name: left.name, type: left.type, operator, to: right.value[0] ?? 0 };
  const turned = TURNED[operator];
  if (left.op !== 'constant' || right.op !== 'reference' || !turned) return undefined;
  return { name: right.name, type: right.type, operator: turned, to: left.value[0] ?? 0 };
}

function isStart(before: Statement | undefined, name: string): before is Declare {
  return before?.op === 'declare' && before.name === name && before.value?.op === 'constant';
}

function startOf(before: Declare): number {
  return before.value?.op === 'constant' ? (before.value.value[0] ?? 0) : 0;
}

/** Whether anything in the statements may write to a local. */
function changes(statements: readonly Statement[], name: string, functions: ReadonlyMap<string, IrFunction>): boolean {
  return statements.some((statement) => {
    let written = statement.op === 'assign' && rootName(statement.target) === name;
    for (const expression of expressionsOf(statement))
      walkExpression(expression, (each) => {
        if (each.op !== 'call') return;
        const { parameters = [] } = functions.get(each.callee) ?? {};
        written ||= each.args.some((arg, index) => parameters[index]?.direction !== 'in' && rootName(arg) === name);
      });
    return written || changes(inner(statement), name, functions);
  });
}

function rootName(target: Expression): string | undefined {
  let root = target;
  while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
  return root.op === 'reference' ? root.name : undefined;
}
