import type { MaterialSource } from '../document/material';
import type { SlotSource } from './slots';

/** What people call a number of a material: by its parameter, or by its node and inlet. */
export function titleOfSource(source: SlotSource, material: MaterialSource): string {
  switch (source.from) {
    case 'parameter':
      return material.parameters[source.parameter]?.name ?? source.parameter;
    case 'halves':
      return `${material.parameters[source.parameter]?.name ?? source.parameter} halves`;
    case 'pointer':
      return 'pointer over part';
    case 'frame':
      return `each frame ${source.name}`;
    case 'inlet':
    case 'factor': {
      const { group, node } = source.home;
      const graph = group === undefined ? material.surface : material.groups[group]?.graph;
      const found = graph?.nodes[node];
      return [found?.name ?? found?.kind ?? node, source.inlet, ...(source.from === 'factor' ? ['factor'] : [])].join(' ');
    }
  }
}
