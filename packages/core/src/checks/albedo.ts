import { GraphEdits } from '../document/graph-edits';
import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import type { Check, CheckInput } from './check';
import { openNumbers, placedNodes, placeOf, sourceOf } from './graph-places';

/** Charcoal and fresh snow, scene-linear: what is no metal lies between them. */
const DARKEST = 0.02;
const BRIGHTEST = 0.9;
/** The dullest bare metals. */
const DARKEST_METAL = 0.35;

/** A colour that no real substance has, in a surface that is measured physically. */
export const albedo: Check = {
  id: 'albedo',
  find: (input) =>
    placedNodes(input).flatMap((node) => {
      if (node.kind.id !== 'physicalSurface' || node.node?.features?.includes('hasTransmission')) return [];
      const inlet = (name: string): ResolvedInlet | undefined => node.inlets.find((each) => each.spec.name === name);
      const base = inlet('baseColour');
      const typed = base && typedColour(input, node, base);
      const metallic = inlet('metallic');
      const metal = metallic && openNumbers(node, metallic)?.[0];
      if (!typed || metal === undefined || (metal !== 0 && metal !== 1)) return [];
      const peak = Math.max(...typed.colour);
      const low = metal === 1 ? DARKEST_METAL : DARKEST;
      const high = metal === 1 ? 1 : BRIGHTEST;
      if (peak >= low && peak <= high) return [];
      const wanted = peak < low ? low : high;
      const colour = peak > 1e-4 ? typed.colour.map((each) => Math.round(((each * wanted) / peak) * 1e4) / 1e4) : [wanted, wanted, wanted];
      return [
        {
          place: placeOf(node, 'baseColour'),
          node: typed.node.id,
          title: `${node.kind.title}: its colour is too ${peak < low ? 'dark' : 'bright'} for a real ${metal === 1 ? 'metal' : 'substance'}.`,
          explanation:
            metal === 1
              ? 'Bare metals mirror a third to nearly all of the light. A darker one looks like nothing there is; rust and dirt are no metal where they lie.'
              : 'Charcoal scatters 2 % of the light and fresh snow 90 %. Outside of that, surfaces look dead or seem to glow, and no light or exposure suits both them and their neighbours.',
          mend: {
            label: peak < low ? 'As light as the darkest that is real' : 'As dark as the brightest that is real',
            document: 'material',
            edit: new GraphEdits(typed.node.home.group).setInletValue({ node: typed.node.home.node, inlet: typed.inlet }, colour, 'Colour'),
          },
        },
      ];
    }),
};

interface TypedColour {
  readonly colour: readonly number[];
  readonly node: ResolvedNode;
  readonly inlet: string;
}

/** A colour that is typed at the inlet, or in the node before it. */
function typedColour(input: CheckInput, node: ResolvedNode, inlet: ResolvedInlet): TypedColour | undefined {
  const here = openNumbers(node, inlet);
  if (here) return { colour: here, node, inlet: inlet.spec.name };
  const source = sourceOf(input, inlet);
  const value = source?.kind.id === 'colour' ? source.inlets.find((each) => each.spec.name === 'value') : undefined;
  const colour = source && value && openNumbers(source, value);
  return colour && source ? { colour, node: source, inlet: 'value' } : undefined;
}
