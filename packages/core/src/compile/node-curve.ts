import type { InletValue } from '@brelvin/contract';
import type { NodeKind } from '../catalogue/kind';
import { library } from '../catalogue/library';
import { FRONT_FACING } from '../ir/builtin-variables';
import { evaluateCall } from '../ir/evaluate';
import { FLOAT, sameType, type Type } from '../ir/types';
import { components, isStruct, type Value } from '../ir/value';
import { slotNumbers } from './slots';

/** The course of a node's value over one of its inlets, or of its light over how far a surface faces the light. */
interface CurveSpec {
  /** Nothing for light: then it goes over the cosine between normal and light. */
  readonly inlet?: string;
  readonly low: number;
  readonly high: number;
}

const UNIT = { low: 0, high: 1 };
const FACING = { low: -1, high: 1 };

const CURVED: ReadonlyMap<string, CurveSpec> = new Map<string, CurveSpec>([
  ['step', { inlet: 'value', ...UNIT }],
  ['smoothstep', { inlet: 'value', ...UNIT }],
  ['remap', { inlet: 'value', ...UNIT }],
  ['remapCurve', { inlet: 'value', ...UNIT }],
  ['triangleWave', { inlet: 'value', low: 0, high: 2 }],
  ['bands', FACING],
  ['bandsByWidth', FACING],
  ['bandsByPlace', FACING],
  ['ramp', FACING],
  ['gradient', { inlet: 'at', ...UNIT }],
  ['gradientSmooth', { inlet: 'at', ...UNIT }],
  ['gradientSteps', { inlet: 'at', ...UNIT }],
  ['gradientAsSeen', { inlet: 'at', ...UNIT }],
]);

/** Whether a kind's course is drawn on its card. */
export function hasCurve(kind: string): boolean {
  return CURVED.has(kind);
}

export interface NodeCurve {
  /** The range that is walked over. */
  readonly low: number;
  readonly high: number;
  /** One to three lines (red, green, blue where they differ), each a list of values at even steps. */
  readonly lines: readonly (readonly number[])[];
}

/**
 * Computes the course of a node, by the same function that programs call.
 *
 * @param values typed into inlets; what is not typed takes its default
 */
export function nodeCurve(kind: NodeKind, values: Readonly<Record<string, InletValue>>, steps = 64): NodeCurve | undefined {
  const spec = CURVED.get(kind.id);
  const overload = kind.overloads[0];
  if (!spec || !overload) return undefined;
  const numbers = (name: string, type: Type): Value => {
    const inlet = kind.inlets.find((each) => each.name === name);
    const fallback = inlet && 'value' in inlet.default ? inlet.default.value : [0, 1, 0];
    const flat = slotNumbers(values[name] ?? fallback, type);
    return type.kind === 'array' ? { items: Array.from({ length: type.length }, (_, at) => flat.slice(at * 4, at * 4 + 4)) } : flat;
  };
  const fixed = overload.parameters.map(({ name, type }) => numbers(name, type));
  const place = overload.parameters.findIndex(({ name }) => name === spec.inlet);
  // Numbers typed into the node decide which range is worth seeing.
  const [low, high] = kind.id === 'remap' || kind.id === 'remapCurve' ? spanOf(fixed.slice(1, 3)) : [spec.low, spec.high];
  const samples = Array.from({ length: steps + 1 }, (_, index) => {
    const at = low + ((high - low) * index) / steps;
    const args = fixed.map((each, index2) =>
      index2 === place && sameType(overload.parameters[index2]?.type ?? FLOAT, FLOAT) ? [at] : each,
    );
    const globals = spec.inlet ? undefined : facing(at);
    return seen(evaluateCall(overload, args, { functions: library().module.functions, globals }).result);
  });
  const [red = [], ...rest] = [0, 1, 2].map((channel) => samples.map((sample) => sample[channel] ?? sample[0] ?? 0));
  const grey = rest.every((line) => line.every((each, index) => Math.abs(each - (red[index] ?? 0)) < 1e-4));
  return { low, high, lines: grey ? [red] : [red, ...rest] };
}

function spanOf([low, high]: readonly Value[]): [number, number] {
  const [a = 0] = components(low ?? []);
  const [b = 1] = components(high ?? []);
  const [least, most] = a === b ? [a - 0.5, a + 0.5] : [Math.min(a, b), Math.max(a, b)];
  const beyond = (most - least) * 0.15;
  return [least - beyond, most + beyond];
}

/** What a value looks like: light is the sum of its terms. */
function seen(value: Value): readonly number[] {
  if (!isStruct(value)) return components(value);
  const terms = Object.values(value.fields).map((field) => components(field));
  return [0, 1, 2].map((channel) => terms.reduce((sum, term) => sum + (term[channel] ?? 0), 0));
}

/** All of the first light is scattered and mirrored, nothing of it comes from all sides. */
const LIGHT_PARTS = Array.from({ length: 24 }, (_, part) => (part === 1 || part === 2 ? [1, 1, 1, 1] : [0, 0, 0, 0]));

/** A white light on a surface that faces up, with this cosine between them; nothing else shines. */
function facing(cosine: number): ReadonlyMap<string, Value> {
  const items = (first: readonly number[]): Value => ({ items: [first, ...Array.from({ length: 7 }, () => [0, 0, 0, 0])] });
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  return new Map<string, Value>([
    ['worldPosition', [0, 0, 0]],
    ['worldNormal', [0, 1, 0]],
    [FRONT_FACING, [1]],
    ['ambientColour', [0, 0, 0, 0]],
    ['ambientSlope', [0, 0, 0, 0]],
    ['environmentTurn', [1, 0, 0, 0]],
    ['lightCount', [1, 0, 0, 0]],
    ['lightPlace', items([sine, cosine, 0, 0])],
    ['lightColour', items([1, 1, 1, 0])],
    ['lightAxis', items([0, 1, 0, 0])],
    ['lightFalloff', items([0, 1, 0, 0])],
    ['lightParts', { items: LIGHT_PARTS }],
    ['partDepth', [0, 0, 0, 0]],
  ]);
}
