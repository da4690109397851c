import dagre from '@dagrejs/dagre';
import { expose } from 'comlink';

export interface TidyBox {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}

/** Lays nodes out in layers, sources left (Sugiyama, Tagawa and Toda 1981, by dagre). Answers with top left corners. */
function layered(boxes: readonly TidyBox[], arrows: readonly (readonly [string, string])[]): [string, { x: number; y: number }][] {
  const graph = new dagre.graphlib.Graph({ multigraph: false });
  graph.setGraph({ rankdir: 'LR', nodesep: 28, ranksep: 64, edgesep: 12, ranker: boxes.length > 400 ? 'longest-path' : 'network-simplex' });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { id, width, height } of boxes) graph.setNode(id, { width, height });
  for (const [from, to] of arrows) graph.setEdge(from, to);
  dagre.layout(graph);
  return boxes.map(({ id, width, height }) => {
    const { x, y } = graph.node(id);
    return [id, { x: x - width / 2, y: y - height / 2 }];
  });
}

const tidier = { layered };

export type RemoteTidier = typeof tidier;

expose(tidier);
