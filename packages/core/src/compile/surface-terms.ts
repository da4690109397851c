import type { MaterialSource, OpacityMode } from '../document/material';
import type { IrFunction, Module } from '../ir/ir';
import { LitTerms, sumOfTerms } from './lit-terms';
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

/** Holes are also holes for light, and for what looks behind; what is laid over in no order also says how much it covers. */
export function opacityVariants(opacity: OpacityMode | undefined): readonly SurfaceVariant[] {
  if (opacity === 'cut') return ['caster', 'distance'];
  return opacity === 'unsorted' ? ['cover'] : [];
}

export function outlineVariants({ outline }: Pick<MaterialSource, 'outline'>): SurfaceVariant[] {
  return outline ? [outline.method === 'hull' ? 'hull' : 'lines'] : [];
}
