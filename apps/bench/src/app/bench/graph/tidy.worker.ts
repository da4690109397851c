import dagre from '@dagrejs/dagre';
import { expose } from 'comlink';
import { asLandscape, type TidyBox, type TidyPlace } from './landscape';

/** Lays nodes out in layers, sources left (Sugiyama, Tagawa and Toda 1981, by dagre), as a landscape. Answers with top left corners. */
function layered(boxes: readonly TidyBox[], arrows: readonly (readonly [string, string])[]): TidyPlace[] {
  const graph = new dagre.graphlib.Graph({ multigraph: false });
  graph.setGraph({ rankdir: 'LR', nodesep: 28, ranksep: 64, edgesep: 12, ranker: boxes.length > 400 ? 'longest-path' : 'network-simplex' });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id, width, height } of boxes) graph.setNode(id, { width, height });
  for (const [from, to] of arrows) graph.setEdge(from, to);
  dagre.layout(graph);
  const places = boxes.map(({ id, width, height }): TidyPlace => {
    const { x, y } = graph.node(id);
    return [id, { x: x - width / 2, y: y - height / 2 }];
  });
  return asLandscape(boxes, places);
}

const tidier = { layered };

export type RemoteTidier = typeof tidier;

expose(tidier);
