import type { Meaning } from '../catalogue/kind';
import type { Check, CheckInput, Mend } from './check';
import { senseOf } from './direction-sense';
import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import { placedNodes, placeOf, sourceOf } from './graph-places';
import { GraphEdits } from '../document/graph-edits';
import { joinEdits } from '../document/edit';
import { turnRound } from './turn-round';

/** Kinds whose direction travels towards the surface, as light does before it meets a mirror. */
const TRAVELLING: ReadonlySet<string> = new Set(['reflect', 'refract']);
const WORDS: Partial<Record<Meaning, string>> = { directionToLight: 'towards the light', directionToEye: 'towards the eye' };

/** A direction that points away from the surface, where one that travels towards it is mirrored or bent. */
export const travellingDirections: Check = {
  id: 'travelling',
  find: (input) =>
    placedNodes(input).flatMap((node) => {
      const inlet = TRAVELLING.has(node.kind.id) ? node.inlets.find(({ spec }) => spec.name === 'direction') : undefined;
      const sense = inlet && senseOf(input, inlet);
      const normal = node.inlets.find(({ spec }) => spec.name === 'normal');
      const other = normal && senseOf(input, normal);
      if (inlet?.ribbon && sense?.meaning === 'normal' && (!normal?.ribbon || (other && other.meaning !== 'normal'))) {
        return [
          {
            place: placeOf(node, inlet.spec.name),
            node: node.id,
            title: `${node.kind.title} gets the surface’s normal as the direction that is mirrored or bent.`,
            explanation:
              'Both inlets take a unit vector, so it compiles; but the result has nothing to do with the surface. The normal belongs in “Normal”.',
            mend: swapped(input, node, inlet, normal),
          },
        ];
      }
      const words = sense && WORDS[sense.meaning];
      if (!inlet || !words || sense.turned) return [];
      const edit = turnRound(input, node, inlet);
      return [
        {
          place: placeOf(node, inlet.spec.name),
          node: node.id,
          title: `${node.kind.title} gets a direction ${words}, but wants one that travels to the surface.`,
          explanation:
            'Reflect and Refract take the incident direction: from the light, or the eye, to the surface. With the opposite one the result points into the surface, and highlights and reflections are on the wrong side.',
          mend: edit && { label: 'Turn it round', document: 'material' as const, edit },
        },
      ];
    }),
};

/** What runs into the two inlets changes places; nothing where it comes from outside of the group. */
function swapped(input: CheckInput, node: ResolvedNode, direction: ResolvedInlet, normal: ResolvedInlet | undefined): Mend | undefined {
  const edits = new GraphEdits(node.home.group);
  const both = [
    [normal, 'direction'],
    [direction, 'normal'],
  ] as const;
  const each = both.map(([from, inlet]) => {
    const to = { node: node.home.node, inlet };
    if (!from?.ribbon) return edits.disconnect(to);
    const source = sourceOf(input, from);
    return source?.node && edits.connect({ node: source.home.node, outlet: from.ribbon.outlet }, to);
  });
  const found = each.filter((edit) => edit !== undefined);
  if (found.length < both.length) return undefined;
  return { label: 'Swap the two', document: 'material', edit: joinEdits(`Swap the inlets of ${node.kind.title}`, ...found) };
}
