import type { Meaning } from '../catalogue/kind';
import type { Check } from './check';
import { DIRECTIONS, senseOf } from './direction-sense';
import { placedNodes, placeOf } from './graph-places';
import { GraphEdits } from '../document/graph-edits';
import { turnRound } from './turn-round';

const WORDS: Partial<Record<Meaning, string>> = {
  normal: 'the surface’s normal',
  directionToLight: 'a direction towards the light',
  directionToEye: 'a direction towards the eye',
};

/** A direction that was turned round, or is of another kind than what is wanted. */
export const directionKinds: Check = {
  id: 'direction',
  find: (input) =>
    placedNodes(input).flatMap((node) =>
      node.inlets.flatMap((inlet) => {
        const wanted = inlet.spec.meaning;
        const sense = DIRECTIONS.has(wanted) ? senseOf(input, inlet) : undefined;
        if (!sense || !DIRECTIONS.has(sense.meaning)) return [];
        if (sense.meaning === wanted && sense.turned) {
          const edit = turnRound(input, node, inlet);
          return [
            {
              place: placeOf(node, inlet.spec.name),
              node: node.id,
              title: `${node.kind.title} gets ${WORDS[wanted]} the wrong way round.`,
              explanation:
                'Formulas of light take all directions away from the surface. One that travels with the light gives a cosine below 0: the lit side goes dark and the dark side light.',
              mend: edit && { label: 'Turn it round', document: 'material' as const, edit },
            },
          ];
        }
        if (sense.meaning === wanted) return [];
        return [
          {
            place: placeOf(node, inlet.spec.name),
            node: node.id,
            title: `${node.kind.title}: “${inlet.spec.label}” wants ${WORDS[wanted]}, but gets ${WORDS[sense.meaning]}.`,
            explanation: 'Both are unit vectors, so it compiles; but the formula then measures another angle than it means.',
            mend: {
              label: 'Disconnect it',
              document: 'material' as const,
              edit: new GraphEdits(node.home.group).disconnect({ node: node.home.node, inlet: inlet.spec.name }),
            },
          },
        ];
      }),
    ),
};
