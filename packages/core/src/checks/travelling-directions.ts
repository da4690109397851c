import type { Meaning } from '../catalogue/kind';
import type { Check } from './check';
import { senseOf } from './direction-sense';
import { placedNodes, placeOf } from './graph-places';
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
      const words = sense && WORDS[sense.meaning];
      if (!inlet || !words || sense.turned) return [];
      const edit = turnRound(input, node, inlet);
      return [
        {
          place: placeOf(node, inlet.spec.name),
          node: node.id,
          title: `${node.kind.title} gets a direction ${words}, but wants one that travels to the surface.`,
          explanation:
            'Reflect and Refract take the way that light, or the look of the eye, goes before it meets the surface. With the opposite, what comes out points into the surface, and a highlight or a mirrored picture stands on the wrong side.',
          mend: edit && { label: 'Turn it round', document: 'material' as const, edit },
        },
      ];
    }),
};
