import { DOCK } from '../document/graph';
import { GraphEdits } from '../document/graph-edits';
import type { Check } from './check';
import { placedNodes } from './graph-places';

/** Nothing arrives at the Stage. */
export const openDock: Check = {
  id: 'open-dock',
  find: (input) => {
    const { material } = input;
    if (material.surface.ribbons['dock.colour'] || material.surface.ribbons['dock.emission']) return [];
    const nodes = placedNodes(input).filter((node) => node.home.group === undefined);
    if (nodes.length === 0) return [];
    // The last node that gives light, else a colour, is most likely what is meant.
    const giving = (type: string) => nodes.filter((node) => Object.values(node.outlets)[0] === type).at(-1);
    const likely = giving('light') ?? giving('colour');
    const outlet = likely && Object.keys(likely.outlets)[0];
    return [
      {
        place: 'dock',
        node: likely?.id,
        title: 'Nothing runs into the dock.',
        explanation:
          'The Stage shows what is connected to the dock. While nothing is, the mesh is shown as grey plaster, and no node changes the picture.',
        mend:
          likely && outlet
            ? {
                label: `Run ${likely.kind.title} to the dock`,
                document: 'material',
                edit: new GraphEdits().connect({ node: likely.home.node, outlet }, { node: DOCK, inlet: 'colour' }),
              }
            : undefined,
      },
    ];
  },
};
