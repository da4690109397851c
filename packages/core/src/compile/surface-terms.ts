import type { OpacityMode } from '@brelvin/contract';
import type { MaterialSource } from '../document/material';
import type { IrFunction, Module } from '../ir/ir';
import { LitTerms, sumOfTerms } from './lit-terms';
import type { WornBy } from './compiled-material';
import type { SurfaceVariant } from './surface-programs';

const SURFACE_LIGHT = 'surfaceLight(Lit)';

/** Adds up the terms that a surface has. */
export function addedTerms(
  paintSurface: IrFunction,
  functions: ReadonlyMap<string, IrFunction>,
  { structs }: Pick<Module, 'structs'>,
): IrFunction {
  const [declared, lit] = [functions.get(SURFACE_LIGHT), structs.get('Lit')];
  if (!declared || !lit) throw new ReferenceError(`the shader library must define ${SURFACE_LIGHT}`);
  return sumOfTerms(declared, new LitTerms(lit, functions).of(paintSurface));
}

/** What draws the mesh in other ways must move its vertices too. */
const SHAPED: readonly SurfaceVariant[] = ['caster', 'distance', 'edges', 'wires'];

/** The variants that a material is drawn by besides those that its light wants. */
export function ownVariants(
  material: Pick<MaterialSource, 'outline'>,
  { shaped, opacity, wornBy = 'mesh' }: { readonly shaped: boolean; readonly opacity?: OpacityMode; readonly wornBy?: WornBy },
): readonly SurfaceVariant[] {
  const outlines = outlineVariants(material);
  // A field has no vertices that could be grown.
  if (wornBy === 'field') return outlines.filter((each) => each !== 'hull');
  return [...outlines, ...(shaped ? SHAPED : []), ...opacityVariants(opacity)];
}

/** Holes are also holes for light, and for what looks behind; what is laid over in no order also says how much it covers. */
function opacityVariants(opacity: OpacityMode | undefined): readonly SurfaceVariant[] {
  if (opacity === 'cut') return ['caster', 'distance'];
  return opacity === 'unsorted' ? ['cover'] : [];
}

function outlineVariants({ outline }: Pick<MaterialSource, 'outline'>): SurfaceVariant[] {
  return outline ? [outline.method === 'hull' ? 'hull' : 'lines'] : [];
}
