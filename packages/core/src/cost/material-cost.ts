import type { Material } from '@brelvin/contract';
import type { Library } from '../catalogue/library';
import { compileMaterial } from '../compile/compile-material';
import { CODE_PATH, VERTICES_PATH } from '../compile/code/read-code';
import { resolveGraph, type GraphProblem } from '../compile/resolve';
import type { Origin } from '../ir/origin';
import type { LitProgram } from '../scene/lights';
import { FREE, weightOfCost, type Cost } from './cost';
import { movableNodes, type Movable } from './movable';
import { programCost, type ProgramCost } from './program-cost';

/** What a material asks of a device, estimated from its programs. */
export interface MaterialCost {
  /** At each pixel, without shadows and occlusion. */
  readonly pixel: Cost;
  /** At each vertex. */
  readonly vertex: Cost;
  /** What shadows and occlusion of the light add at each pixel. */
  readonly shade: Cost;
  /** The parts of it, dearest first. */
  readonly parts: readonly PartCost[];
  /** What is not the material’s own: placing vertices, the sum of terms, what is done with the result. */
  readonly rest: { readonly pixel: Cost; readonly vertex: Cost };
  /** Loops of which nobody can say how often they go round. */
  readonly openLoops: number;
  /** What could be computed less often. */
  readonly movable: readonly Movable[];
}

/** A node, by its path; or a line of code, of the text that `code` or `vertices` names. */
export type CostPlace = { readonly node: string } | { readonly text: typeof CODE_PATH | typeof VERTICES_PATH; readonly line: number };

export interface PartCost {
  readonly place: CostPlace;
  readonly pixel: Cost;
  readonly vertex: Cost;
}

export interface CostWish {
  /** Lights that shine. */
  readonly lights: number;
  /** What their pictures need; `plain` where nothing throws a shadow. */
  readonly lit: LitProgram;
  readonly newId: () => string;
}

/** What a material costs; or why it cannot be said. */
export function materialCost(
  material: Material,
  library: Library,
  { lights, lit, newId }: CostWish,
): MaterialCost | { readonly problems: readonly GraphProblem[] } {
  const variants = lit === 'plain' ? [] : [lit];
  const { compiled, problems } = compileMaterial(material, library, { variants });
  if (!compiled) return { problems };
  const lines = linesOf(material);
  const question = { lights, placeOf: (origin: Origin) => placeKey(origin, lines) };
  const plain = programCost(compiled.program, question);
  const shaded = compiled.variants[variants[0] ?? 'shadowed'];
  const whole = shaded ? programCost(shaded, question).pixel.whole : plain.pixel.whole;
  const { pixel, vertex } = plain;
  const nodes = material.code ? [] : movableNodes(material, resolveGraph(material, library), compiled.program, pixel.places, newId);
  return {
    pixel: pixel.whole,
    vertex: vertex.whole,
    shade: minus(whole, pixel.whole),
    parts: partsOf(plain),
    rest: { pixel: minus(pixel.whole, ...pixel.places.values()), vertex: minus(vertex.whole, ...vertex.places.values()) },
    openLoops: pixel.openLoops + vertex.openLoops,
    movable: nodes,
  };
}

function partsOf({ pixel, vertex }: ProgramCost): PartCost[] {
  const keys = new Set([...pixel.places.keys(), ...vertex.places.keys()]);
  return [...keys]
    .map((key) => ({ place: placeOfKey(key), pixel: pixel.places.get(key) ?? FREE, vertex: vertex.places.get(key) ?? FREE }))
    .sort((a, b) => weightOfCost(b.pixel) - weightOfCost(a.pixel) || weightOfCost(b.vertex) - weightOfCost(a.vertex));
}

function minus(from: Cost, ...taken: readonly Cost[]): Cost {
  return {
    instructions: taken.reduce((left, { instructions }) => left - instructions, from.instructions),
    reads: taken.reduce((left, { reads }) => left - reads, from.reads),
  };
}

// Places as keys: a node's path as it is, a line as text and number with a mark between, which no path has.

const MARK = '\n';
type TextLines = ReadonlyMap<string, readonly number[]>;

/** Where the lines of a material's texts begin. */
function linesOf({ code }: Material): TextLines {
  const starts = (text: string): number[] => [0, ...[...text.matchAll(/\r\n|\r|\n/g)].map((found) => found.index + found[0].length)];
  return new Map([
    [CODE_PATH, starts(code?.text ?? '')],
    [VERTICES_PATH, starts(code?.vertices ?? '')],
  ]);
}

function placeKey({ path, range }: Origin, lines: TextLines): string | undefined {
  if (!range) return path;
  const starts = lines.get(path);
  if (!starts) return undefined;
  const line = starts.filter((start) => start <= range.from).length;
  return `${path}${MARK}${line}`;
}

function placeOfKey(key: string): CostPlace {
  const [text = '', line] = key.split(MARK);
  return line === undefined ? { node: text } : { text: text === VERTICES_PATH ? VERTICES_PATH : CODE_PATH, line: Number(line) };
}
