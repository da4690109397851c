import type { Meaning } from '../catalogue/kind';
import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import type { CheckInput } from './check';
import { openNumbers, sourceOf } from './graph-places';

/** What a vector on a ribbon is: its kind of direction, whether it was turned round, whether its length is 1. */
export interface Sense {
  readonly meaning: Meaning;
  readonly turned: boolean;
  readonly unit: boolean;
}

export const DIRECTIONS: ReadonlySet<Meaning> = new Set<Meaning>(['normal', 'directionToLight', 'directionToEye']);

const DEEPEST = 24;

/** Follows a ribbon back through nodes that keep a direction or turn it round. */
export function senseOf(input: CheckInput, inlet: ResolvedInlet, depth = 0): Sense | undefined {
  const source = sourceOf(input, inlet);
  if (!source || depth > DEEPEST) return undefined;
  const through = (name: string): Sense | undefined => {
    const next = source.inlets.find((each) => each.spec.name === name);
    return next && senseOf(input, next, depth + 1);
  };
  switch (source.kind.id) {
    case 'port':
      return through('in');
    case 'normalize': {
      const before = through('value');
      return { meaning: before?.meaning ?? 'vector', turned: before?.turned ?? false, unit: true };
    }
    case 'multiply':
      return scaled(through('a'), constant(source, 'b')) ?? scaled(through('b'), constant(source, 'a'));
    case 'subtract': {
      const zero = constant(source, 'a');
      const back = zero === 0 ? through('b') : undefined;
      return back ? { ...back, turned: !back.turned } : { meaning: 'vector', turned: false, unit: false };
    }
    default: {
      const outlet = source.kind.outlets.find((each) => each.name === inlet.ribbon?.outlet);
      const meaning = outlet?.meaning ?? 'number';
      const unit = DIRECTIONS.has(meaning);
      return { meaning, turned: false, unit };
    }
  }
}

function constant(node: ResolvedNode, name: string): number | undefined {
  const inlet = node.inlets.find((each) => each.spec.name === name);
  const numbers = inlet && openNumbers(node, inlet);
  return numbers?.every((each) => each === numbers[0]) ? numbers[0] : undefined;
}

function scaled(before: Sense | undefined, factor: number | undefined): Sense | undefined {
  if (!before || factor === undefined) return undefined;
  return { meaning: before.meaning, turned: before.turned !== factor < 0, unit: before.unit && Math.abs(factor) === 1 };
}
