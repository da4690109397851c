import type { Material, Change } from '@brelvin/contract';
import type { Edit } from '../document/edit';
import { inletKey } from '../document/graph';
import { GraphEdits, graphsOf } from '../document/graph-edits';

const READER = 'normalFromMap';
const GREEN_DOWN = 'greenDown';

/** A node that reads an image as a normal map. */
export interface NormalReader {
  readonly node: string;
  readonly group?: string;
  readonly greenDown: boolean;
  readonly features: readonly string[];
}

/** The nodes that read an image as a normal map, straight from an image node. */
export function normalReaders(material: Pick<Material, 'surface' | 'groups'>, image: string): NormalReader[] {
  return graphsOf(material).flatMap(([{ group }, graph]) =>
    Object.entries(graph.nodes).flatMap(([node, { kind, features = [] }]): NormalReader[] => {
      const source = graph.ribbons[inletKey(node, 'map')]?.from;
      if (kind !== READER || source === undefined || graph.nodes[source]?.image !== image) return [];
      return [{ node, group, greenDown: features.includes(GREEN_DOWN), features }];
    }),
  );
}

/** Has nodes read green as pointing down, or up. */
export function readGreenAs(readers: readonly NormalReader[], down: boolean): Edit {
  const changes = readers.flatMap(({ node, group, greenDown, features }): Change[] => {
    if (greenDown === down) return [];
    const on = down ? [...features, GREEN_DOWN] : features.filter((each) => each !== GREEN_DOWN);
    return [new GraphEdits(group).putFeatures(node, on)];
  });
  return { label: `Read green ${down ? 'down' : 'up'}`, changes };
}
