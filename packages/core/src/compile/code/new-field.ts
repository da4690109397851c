import type { DistanceField } from '@brelvin/contract';
import { EMPTY_GRAPH } from '../../document/graph';
import { graphInShort } from '../../document/graph-in-short';
import { FIRST_FIELD } from '../../field/read-field';

/** A float with a collar, as a graph. */
export function newDistanceField(name: string): DistanceField {
  const surface = graphInShort(
    {
      body: ['ellipsoidField', 60, 40, { radii: [0.7, 1, 0.7] }],
      float: ['fieldRegion', 340, 40],
      place: ['spaceMoved', 60, 220, { offset: [0, 0.25, 0] }],
      ring: ['torusField', 340, 200, { radius: 0.68, thickness: 0.22 }],
      collar: ['fieldRegion', 620, 200],
      both: ['fieldUnionRound', 880, 80, { radius: 0.08 }],
    },
    {
      'float.distance': 'body.result',
      'ring.position': 'place.result',
      'collar.distance': 'ring.result',
      'both.a': 'float.result',
      'both.b': 'collar.result',
      'dock.field': 'both.result',
    },
  );
  const named = (id: string, words: string): [string, (typeof surface.nodes)[string]][] => {
    const node = surface.nodes[id];
    return node ? [[id, { ...node, name: words }]] : [];
  };
  const nodes = { ...surface.nodes, ...Object.fromEntries([...named('float', 'Float'), ...named('collar', 'Collar')]) };
  return { ...emptyField(name), surface: { ...surface, nodes } };
}

/** A field that is written as shading code. */
export function newCodedField(name: string, text = FIRST_FIELD): DistanceField {
  return { ...emptyField(name), text };
}

/** One that is nowhere yet. */
export function emptyField(name: string): DistanceField {
  return { format: 'brelvin-field', version: 1, name, tags: [], surface: EMPTY_GRAPH, groups: {}, parameters: {}, notes: '' };
}
