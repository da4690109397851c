import { joinEdits } from '../document/edit';
import { GraphEdits } from '../document/graph-edits';
import type { Check } from './check';
import { placedNodes, placeOf } from './graph-places';
import { evenFeed } from './image-feeds';

/** A map whose pixels are all the same. */
export const evenMap: Check = {
  id: 'even-map',
  find: (input) =>
    placedNodes(input).flatMap((node) =>
      node.inlets.flatMap((inlet) => {
        const feed = evenFeed(input, inlet);
        if (!feed) return [];
        const at = { node: node.home.node, inlet: inlet.spec.name };
        const factor = inlet.spec.scales ? node.node?.factors?.[inlet.spec.name] : undefined;
        const rounded = feed.value.map((each, index) => {
          const by = typeof factor === 'number' ? factor : (factor?.[index] ?? 1);
          return Math.round(each * by * 1000) / 1000;
        });
        const [first = 0] = rounded;
        const value = inlet.type === 'colour' || inlet.type === 'vec3' ? (rounded.length === 3 ? rounded : [first, first, first]) : first;
        const edits = new GraphEdits(node.home.group);
        return [
          {
            place: placeOf(node, inlet.spec.name),
            node: feed.node,
            title: `“${feed.name}” ${factor === undefined ? 'is' : 'gives'} ${rounded.join(' ')} everywhere: “${inlet.spec.label}” of ${node.kind.title} may as well be a number.`,
            explanation:
              'A uniform map costs memory and a texture read per pixel, and its value cannot be dragged. Often the wrong channel was chosen, or the export was empty.',
            mend: {
              label: `Set “${inlet.spec.label}” to ${rounded.join(' ')}`,
              document: 'material' as const,
              edit: joinEdits(`Set ${inlet.spec.label}`, edits.disconnect(at), edits.setInletValue(at, value, inlet.spec.label)),
            },
          },
        ];
      }),
    ),
};
