import { unusedNodes } from '../compile/rewiring';
import { titleOfNode } from '../compile/group-kind';
import { graphsOf } from '../document/graph-edits';
import type { Check } from './check';

const FEW = 4;

/** Nodes that nothing carries to the dock. */
export const unused: Check = {
  id: 'unused-node',
  find: ({ material, catalogue }) =>
    graphsOf(material).flatMap(([edits, graph]) => {
      const ids = unusedNodes({ graph });
      if (ids.size === 0 || ids.size === Object.keys(graph.nodes).length) return [];
      const titles = [...ids].flatMap((id) => {
        const node = graph.nodes[id];
        return node ? [titleOfNode(catalogue, material, node)] : [];
      });
      const named = titles.length > FEW ? `${titles.slice(0, FEW).join(', ')} and ${titles.length - FEW} more` : titles.join(', ');
      const [first] = ids;
      return [
        {
          place: edits.group === undefined ? 'surface' : `group/${edits.group}`,
          node: edits.group === undefined ? first : undefined,
          title: `${ids.size === 1 ? 'A node is' : `${ids.size} nodes are`} not used: ${named}.`,
          explanation:
            'Nodes that do not reach the dock cost nothing in the picture, but whoever reads the graph wonders what they are for.',
          mend: { label: ids.size === 1 ? 'Remove it' : 'Remove them', document: 'material' as const, edit: edits.remove(material, ids) },
        },
      ];
    }),
};
