import type { ResolvedNode } from '../compile/resolve';
import { GraphEdits } from '../document/graph-edits';
import type { Check, Finding, Mend } from './check';
import { openNumbers, placedNodes, placeOf } from './graph-places';

type Found = Omit<Finding, 'check'>;

/** Inlets that are both ends of a range, by kind. */
const RANGES: ReadonlyMap<string, readonly (readonly [low: string, high: string])[]> = new Map([
  ['remap', [['inLow', 'inHigh']]],
  ['remapCurve', [['inLow', 'inHigh']]],
  ['smoothstep', [['low', 'high']]],
  ['clamp', [['low', 'high']]],
  ['repeat', [['low', 'high']]],
]);

/** Ranges without extent, gradients without stops, directions without a direction: they have a value, but hardly the wanted one. */
export const emptyRanges: Check = {
  id: 'empty',
  find: (input) => placedNodes(input).flatMap((node) => [...ranges(node), ...gradients(node), ...directions(node)]),
};

function ranges(node: ResolvedNode): Found[] {
  return (RANGES.get(node.kind.id) ?? []).flatMap(([low, high]): Found[] => {
    const [from, to] = [low, high].map((name) => node.inlets.find(({ spec }) => spec.name === name));
    const [first] = (from && openNumbers(node, from)) ?? [];
    const [last] = (to && openNumbers(node, to)) ?? [];
    if (!from || !to || first === undefined || first !== last) return [];
    return [
      {
        place: placeOf(node, high),
        node: node.id,
        title: `${node.kind.title}: “${from.spec.label}” and “${to.spec.label}” are both ${first}.`,
        explanation: 'A range whose ends are equal is empty: the node gives one value, or jumps, whatever its input.',
        mend: setTo(node, high, first + 1, 'Put the ends apart'),
      },
    ];
  });
}

function gradients(node: ResolvedNode): Found[] {
  return node.inlets.flatMap((inlet): Found[] => {
    const numbers = inlet.spec.meaning === 'stops' ? openNumbers(node, inlet) : undefined;
    if (!numbers || numbers.length >= 8) return [];
    return [
      {
        place: placeOf(node, inlet.spec.name),
        node: node.id,
        title: `${node.kind.title} has ${numbers.length < 4 ? 'no stop' : 'a single stop'}.`,
        explanation:
          'A gradient needs two stops to go from one colour to another. With one it is that colour everywhere; with none it is black.',
        mend: setTo(
          node,
          inlet.spec.name,
          numbers.length < 4 ? [0, 0, 0, 0, 1, 1, 1, 1] : [...numbers.slice(0, 3), 0, 1, 1, 1, 1],
          'Put stops at both ends',
        ),
      },
    ];
  });
}

function directions(node: ResolvedNode): Found[] {
  return node.inlets.flatMap((inlet): Found[] => {
    const { spec } = inlet;
    const wanted = 'value' in spec.default ? spec.default.value : [];
    const numbers = openNumbers(node, inlet);
    // Where the default is a direction, zeros are none.
    const isDirection = spec.meaning === 'vector' && node.kind.family === 'Shape' && wanted.some((each) => each !== 0);
    if (!isDirection || !numbers?.every((each) => each === 0)) return [];
    return [
      {
        place: placeOf(node, spec.name),
        node: node.id,
        title: `${node.kind.title}: “${spec.label}” points nowhere.`,
        explanation: 'A vector of zeros has no direction. Straight up is used instead, which is seldom what was meant.',
        mend: setTo(node, spec.name, wanted, 'Point it as a new node does'),
      },
    ];
  });
}

function setTo(node: ResolvedNode, inlet: string, value: number | readonly number[], label: string): Mend {
  const at = { node: node.home.node, inlet };
  return { label, document: 'material', edit: new GraphEdits(node.home.group).setInletValue(at, value, label) };
}
