import { constant } from '../ir/build';
import type { Expression, IrFunction, Loop, Statement } from '../ir/ir';
import { turnsOf } from '../ir/loop-guard';
import type { Origin } from '../ir/origin';
import type { Program, StageProgram } from '../ir/program';
import { INT } from '../ir/types';
import { expressionsOf, operands } from '../ir/walk';
import { addCosts, dearer, FREE, timesCost, weightOfCost, type Cost } from './cost';
import { instructionsOf, readsOf } from './instructions';

/** What a stage asks for, each time it runs, and for which parts of what somebody wrote. */
export interface StageCost {
  readonly whole: Cost;
  /** By place; what no place has is the rest: the frame's own part of the program. */
  readonly places: ReadonlyMap<string, Cost>;
  /** Loops of which nobody can say how often they go round: they count as going round once. */
  readonly openLoops: number;
}

export interface ProgramCost {
  readonly vertex: StageCost;
  readonly pixel: StageCost;
}

export interface CostQuestion {
  /** How many lights there are: as many turns of each loop over lights. */
  readonly lights: number;
  /** Names the place that a statement belongs to; nothing where it belongs to that of the statement around it. */
  readonly placeOf: (origin: Origin) => string | undefined;
}

/**
 * What the stages of a program ask for, estimated from the IR: calls are put in the place of functions, as drivers do. Of the ways
 * of an `if` and a `switch` the dearer one counts, and nobody leaves early; so it is an upper estimate.
 */
export function programCost({ vertex, fragment }: Program, question: CostQuestion): ProgramCost {
  return { vertex: stageCost(vertex, question), pixel: stageCost(fragment, question) };
}

export function stageCost({ functions }: Pick<StageProgram, 'functions'>, question: CostQuestion): StageCost {
  return new Estimate(functions, question).of(MAIN);
}

const MAIN = 'main()';
/** The library's number of lights. */
const LIGHT_COUNT = 'lightsInUse()';

/** A cost, with the parts of it that belong to places. */
interface Placed {
  readonly cost: Cost;
  readonly places: ReadonlyMap<string, Cost>;
  readonly openLoops: number;
}

const NOTHING: Placed = { cost: FREE, places: new Map(), openLoops: 0 };

class Estimate {
  private readonly functions: ReadonlyMap<string, IrFunction>;
  private readonly known = new Map<string, Placed>();

  constructor(
    functions: readonly IrFunction[],
    private readonly question: CostQuestion,
  ) {
    this.functions = new Map(functions.map((each) => [each.signature, each]));
  }

  of(signature: string): StageCost {
    const { cost, places, openLoops } = this.call(signature);
    return { whole: cost, places, openLoops };
  }

  private call(signature: string): Placed {
    const known = this.known.get(signature);
    if (known) return known;
    this.known.set(signature, NOTHING);
    const made = this.body(this.functions.get(signature)?.body ?? [], new Map());
    this.known.set(signature, made);
    return made;
  }

  /** @param values of locals that never change, as they were declared */
  private body(statements: readonly Statement[], values: Map<string, Expression>): Placed {
    let before: Statement | undefined;
    const parts = statements.map((statement) => {
      const part = this.statement(statement, before, values);
      before = statement;
      return part;
    });
    return sum(parts);
  }

  private statement(statement: Statement, before: Statement | undefined, values: Map<string, Expression>): Placed {
    if (statement.op === 'declare' && !statement.mutable && statement.value) values.set(statement.name, statement.value);
    const made = this.inside(statement, before, values);
    const place = statement.origin && this.question.placeOf(statement.origin);
    return place === undefined ? made : belongsTo(place, made);
  }

  private inside(statement: Statement, before: Statement | undefined, values: Map<string, Expression>): Placed {
    const said = sum(expressionsOf(statement).map((each) => this.expression(each)));
    switch (statement.op) {
      case 'block':
        return this.body(statement.body, values);
      case 'if':
        return sum([said, dearest([statement.then, statement.else].map((way) => this.body(way, values)))]);
      case 'switch':
        return sum([said, dearest(statement.cases.map(({ body }) => this.body(body, values)))]);
      case 'loop': {
        const turns = this.turns(statement, before, values);
        const once = sum([said, this.body(statement.body, values), this.body(statement.step, values)]);
        return turns === undefined ? { ...once, openLoops: once.openLoops + 1 } : times(once, turns);
      }
      default:
        return said;
    }
  }

  /** How often a loop goes round, where that can be told. */
  private turns(loop: Loop, before: Statement | undefined, values: ReadonlyMap<string, Expression>): number | undefined {
    const { condition } = loop;
    if (condition.op !== 'binary') return undefined;
    const bound = this.number(condition.right, values);
    const told = bound === undefined ? condition : { ...condition, right: constant(INT, [bound]) };
    return turnsOf({ ...loop, condition: told }, before, this.functions);
  }

  private number(expression: Expression, values: ReadonlyMap<string, Expression>): number | undefined {
    if (expression.op === 'constant') return expression.value[0];
    if (expression.op === 'call') return expression.callee === LIGHT_COUNT ? this.question.lights : undefined;
    if (expression.op === 'conditional') {
      const [yes, no] = [this.number(expression.then, values), this.number(expression.else, values)];
      return yes === undefined || no === undefined ? undefined : Math.max(yes, no);
    }
    const value = expression.op === 'reference' && expression.scope === 'local' ? values.get(expression.name) : undefined;
    return value && this.number(value, values);
  }

  private expression(expression: Expression): Placed {
    const parts = operands(expression).map((each) => this.expression(each));
    const own = { instructions: instructionsOf(expression), reads: readsOf(expression) };
    if (expression.op === 'call') parts.push(this.call(expression.callee));
    return parts.length === 0 && own.instructions + own.reads === 0 ? NOTHING : sum([...parts, { ...NOTHING, cost: own }]);
  }
}

function sum(all: readonly Placed[]): Placed {
  const parts = all.filter((each) => each !== NOTHING);
  const [only] = parts;
  if (!only) return NOTHING;
  if (parts.length === 1) return only;
  const places = new Map<string, Cost>();
  for (const part of parts) for (const [place, cost] of part.places) places.set(place, addCosts(places.get(place) ?? FREE, cost));
  return {
    cost: addCosts(...parts.map(({ cost }) => cost)),
    places,
    openLoops: parts.reduce((count, { openLoops }) => count + openLoops, 0),
  };
}

function times({ cost, places, openLoops }: Placed, turns: number): Placed {
  return { cost: timesCost(cost, turns), places: new Map([...places].map(([place, each]) => [place, timesCost(each, turns)])), openLoops };
}

function dearest(ways: readonly Placed[]): Placed {
  return ways.reduce((best, way) => (dearer(best.cost, way.cost) === best.cost ? best : way), NOTHING);
}

/** All that no place inside of it has is this place's. */
function belongsTo(place: string, made: Placed): Placed {
  const others = addCosts(...made.places.values());
  const rest = { instructions: made.cost.instructions - others.instructions, reads: made.cost.reads - others.reads };
  if (weightOfCost(rest) === 0) return made;
  return { ...made, places: new Map(made.places).set(place, addCosts(made.places.get(place) ?? FREE, rest)) };
}
