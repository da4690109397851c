import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import { joinEdits } from '../document/edit';
import { GraphEdits } from '../document/graph-edits';
import type { Check, CheckInput } from './check';
import { openNumbers, placedNodes, placeOf, sourceOf } from './graph-places';

/** A normal map that lies rotated on the surface, whose bumps were not turned with it. */
export const turnedNormalMap: Check = {
  id: 'turned-normal-map',
  find: (input) =>
    placedNodes(input).flatMap((node) => {
      if (node.kind.id !== 'normalFromMap' || node.node?.features?.includes('turned')) return [];
      const map = node.inlets.find(({ spec }) => spec.name === 'map');
      const image = map && sourceOf(input, map);
      const turned = image?.kind.id === 'image' ? turning(input, image) : undefined;
      if (!turned) return [];
      const edits = new GraphEdits(node.home.group);
      const to = { node: node.home.node, inlet: 'turn' };
      const put = turned.from
        ? turned.from.home.group === node.home.group && edits.connect({ node: turned.from.home.node, outlet: 'turn' }, to)
        : edits.setInletValue(to, turned.angle, 'Rotation');
      const on = { label: '', changes: [edits.putFeatures(node.home.node, [...(node.node?.features ?? []), 'turned'])] };
      return [
        {
          place: placeOf(node),
          node: node.id,
          title: 'This normal map lies rotated on the surface, but its bumps are lit as if it did not.',
          explanation:
            'A normal map stores its slopes along its own edges. Where the picture is turned, the slopes must be turned by the same angle; otherwise light falls on bumps from the wrong side.',
          mend: put
            ? { label: 'Turn its normals, too', document: 'material' as const, edit: joinEdits('Turn a normal map', on, put) }
            : undefined,
        },
      ];
    }),
};

/** How far an image is turned: by itself, or by a UV transform before it. */
function turning(input: CheckInput, image: ResolvedNode): { readonly angle: number; readonly from?: ResolvedNode } | undefined {
  const inlet = (of: ResolvedNode, name: string): ResolvedInlet | undefined => of.inlets.find(({ spec }) => spec.name === name);
  const angleOf = (of: ResolvedNode): number => {
    const turn = inlet(of, 'turn');
    return (turn && openNumbers(of, turn)?.[0]) ?? 0;
  };
  const own = angleOf(image);
  if (own !== 0) return { angle: own };
  const uv = inlet(image, 'uv');
  const before = uv && sourceOf(input, uv);
  return before?.kind.id === 'uvTransform' && angleOf(before) !== 0 ? { angle: angleOf(before), from: before } : undefined;
}
