import type { ResolvedNode } from '../compile/resolve';
import type { Check, CheckInput } from './check';
import { DIRECTIONS, senseOf } from './direction-sense';
import { insertBefore, placedNodes, placeOf, sourceOf } from './graph-places';

interface Domain {
  readonly inlet: string;
  /** What a number below 0 does there. */
  readonly then: string;
}

const MIXES: Domain = {
  inlet: 'amount',
  then: 'Below 0 a mix runs out beyond its first end: colours come out that lie between neither, and may be negative.',
};

/** Kinds with an inlet that has no use for numbers below 0, and does not say so by itself. */
const DOMAINS: Readonly<Record<string, Domain>> = {
  mix: MIXES,
  mixAsSeen: MIXES,
  power: { inlet: 'a', then: 'A number below 0 has no power: it counts as 0, and half of what comes in is lost in the dark.' },
  squareRoot: { inlet: 'value', then: 'A number below 0 has no root: it counts as 0, and half of what comes in is lost.' },
  logarithm: { inlet: 'value', then: 'At and below 0 there is no logarithm: it counts as the smallest number, some −69.' },
};

/** Kinds whose numbers go from −1 to 1. */
const WAVES = new Set(['sine', 'cosine']);

/** A number that goes below 0 runs to where only those from 0 on have a meaning. */
export const belowZero: Check = {
  id: 'below-zero',
  find: (input) =>
    placedNodes(input).flatMap((node) => {
      const domain = DOMAINS[node.kind.id];
      const inlet = domain && node.inlets.find(({ spec }) => spec.name === domain.inlet);
      const source = inlet && sourceOf(input, inlet);
      if (!domain || !inlet || !source || !goesBelow(input, source)) return [];
      const wave = WAVES.has(source.kind.id);
      const edit = insertBefore(input, node, inlet, wave ? 'remap' : 'clamp', 'value');
      const values = edit?.changes.map((change) =>
        wave && change.path.at(-2) === 'nodes'
          ? { ...change, value: { ...(change.value as object), values: { inLow: -1, inHigh: 1 } } }
          : change,
      );
      return [
        {
          place: placeOf(node, inlet.spec.name),
          node: node.id,
          title: `${source.kind.title} goes from −1 to 1, but “${inlet.spec.label}” of ${node.kind.title} wants numbers from 0 on.`,
          explanation: domain.then,
          mend: edit &&
            values && {
              label: wave ? 'Remap it to 0…1' : 'Insert Clamp',
              document: 'material' as const,
              edit: { ...edit, changes: values },
            },
        },
      ];
    }),
};

function goesBelow(input: CheckInput, source: ResolvedNode): boolean {
  if (WAVES.has(source.kind.id)) return true;
  if (source.kind.id !== 'dot') return false;
  return source.inlets.every((each) => {
    const meaning = senseOf(input, each)?.meaning;
    return meaning !== undefined && DIRECTIONS.has(meaning);
  });
}
