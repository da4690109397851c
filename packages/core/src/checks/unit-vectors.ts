import type { Check } from './check';
import { DIRECTIONS, senseOf } from './direction-sense';
import { insertBefore, placedNodes, placeOf } from './graph-places';

const VECTORS = new Set(['vec3', 'vec2', 'vec4']);

/** A vector of any length where a direction is meant. */
export const unitVectors: Check = {
  id: 'unit-vector',
  find: (input) =>
    placedNodes(input).flatMap((node) =>
      node.inlets.flatMap((inlet) => {
        const given = inlet.ribbon && input.resolved.nodes.get(inlet.ribbon.from)?.outlets[inlet.ribbon.outlet];
        if (!DIRECTIONS.has(inlet.spec.meaning) || !given || !VECTORS.has(given)) return [];
        if (senseOf(input, inlet)?.unit) return [];
        const edit = insertBefore(input, node, inlet, 'normalize', 'value');
        return [
          {
            place: placeOf(node, inlet.spec.name),
            node: node.id,
            title: `${node.kind.title}: “${inlet.spec.label}” gets a vector that may not have length 1.`,
            explanation:
              'A dot product is the cosine of the angle only when both vectors have length 1. Longer ones make highlights too large and too bright; sums of directions are shorter, and make them too dim.',
            mend: edit && { label: 'Insert Normalize', document: 'material' as const, edit },
          },
        ];
      }),
    ),
};
