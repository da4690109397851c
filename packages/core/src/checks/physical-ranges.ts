import { openSides } from '../catalogue/inlet-limits';
import { GraphEdits } from '../document/graph-edits';
import type { Check } from './check';
import { openNumbers, placedNodes, placeOf } from './graph-places';

const LIGHT_MODELS = new Set(['lambert', 'blinnPhong', 'bands']);
const REFLECTING = new Set(['base', 'specular']);

/** A typed number outside of what its inlet means, or a surface that would give back more light than falls on it. */
export const physicalRanges: Check = {
  id: 'range',
  find: (input) =>
    placedNodes(input).flatMap((node) =>
      node.inlets.flatMap((inlet) => {
        const { spec } = inlet;
        const numbers = openNumbers(node, inlet);
        if (!numbers || spec.meaning === 'stops' || spec.meaning === 'image') return [];
        const reflects = spec.meaning === 'colour' && LIGHT_MODELS.has(node.kind.id) && REFLECTING.has(spec.name);
        const open = openSides(spec);
        const low = open === 'both' ? -Infinity : (spec.low ?? (spec.meaning === 'colour' ? 0 : -Infinity));
        const high = open ? Infinity : (spec.high ?? (reflects ? 1 : Infinity));
        if (numbers.every((each) => each >= low && each <= high)) return [];
        const within = numbers.map((each) => Math.min(Math.max(each, low), high));
        const at = { node: node.home.node, inlet: spec.name };
        const [first = 0] = within;
        return [
          {
            place: placeOf(node, spec.name),
            node: node.id,
            title: `${node.kind.title}: “${spec.label}” is ${numbers.map((each) => Math.round(each * 1000) / 1000).join(', ')}, outside of ${range(low, high)}.`,
            explanation: reflects
              ? 'A colour above 1 gives back more light than falls on the surface. No substance does; make the light brighter instead.'
              : 'Beyond this range the formula no longer describes what its name says.',
            mend: {
              label: 'Bring it into its range',
              document: 'material' as const,
              edit: new GraphEdits(node.home.group).setInletValue(at, within.length === 1 ? first : within, spec.label),
            },
          },
        ];
      }),
    ),
};

function range(low: number, high: number): string {
  if (low === -Infinity) return `at most ${high}`;
  return high === Infinity ? `at least ${low}` : `${low} to ${high}`;
}
