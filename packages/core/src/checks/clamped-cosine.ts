import type { Check } from './check';
import { DIRECTIONS, senseOf } from './direction-sense';
import { insertBefore, placedNodes, placeOf, sourceOf } from './graph-places';

/** Kinds that deal with numbers below 0 by themselves. */
const SAFE = new Set(['clamp', 'smoothstep', 'step', 'power', 'remap', 'mix', 'multiply-add', 'gradient', 'bands']);

/** A cosine between directions is used as a brightness although it goes below 0. */
export const clampedCosine: Check = {
  id: 'clamped-cosine',
  find: (input) =>
    placedNodes(input).flatMap((node) =>
      node.inlets.flatMap((inlet) => {
        const source = sourceOf(input, inlet);
        if (source?.kind.id !== 'dot' || SAFE.has(node.kind.id) || node.kind.id === 'dot') return [];
        const both = source.inlets.every((each) => {
          const meaning = senseOf(input, each)?.meaning;
          return meaning !== undefined && (DIRECTIONS.has(meaning) || meaning === 'vector');
        });
        const bright = node.kind.id === 'multiply' || inlet.type === 'colour' || inlet.type === 'light';
        if (!both || !bright) return [];
        const edit = insertBefore(input, node, inlet, 'clamp', 'value');
        return [
          {
            place: placeOf(node, inlet.spec.name),
            node: node.id,
            title: 'A cosine is used as brightness without being clamped.',
            explanation:
              'Where the surface faces away, the dot product is below 0: the light there becomes negative and darkens other light. Clamped at 0 it is simply dark.',
            mend: edit && { label: 'Insert Clamp', document: 'material' as const, edit },
          },
        ];
      }),
    ),
};
