import type { Material, MaterialCode } from '@brelvin/contract';
import { EMPTY_GRAPH } from '../../document/graph';
import { newMaterial } from '../../document/new-documents';
import { applyChanges } from '../../document/transaction';
import { setMaterialCode } from './code-edits';

/** What a code material begins with. */
export const FIRST_MATERIAL_CODE = `/** Colour: what the surface looks like under white light. @colour 0.55 0.55 0.55 */
uniform vec3 colour;
/** Gloss: how sharp the highlight is. @value 32 in 1..256 */
uniform float gloss;

Lit paint(Surface s) {
  return blinnPhong(colour, vec3(0.3), gloss, s.normal, s.toEye);
}
`;

/** The same in the other language. */
export const FIRST_WGSL_CODE = `/** Colour: what the surface looks like under white light. @colour 0.55 0.55 0.55 */
@group(0) @binding(0) var<uniform> colour: vec3f;
/** Gloss: how sharp the highlight is. @value 32 in 1..256 */
@group(0) @binding(1) var<uniform> gloss: f32;

fn paint(s: Surface) -> Lit {
  return blinnPhong(colour, vec3f(0.3), gloss, s.normal, s.toEye);
}
`;

/** A material that is written as code, with the parameters that it declares. */
export function newCodeMaterial(
  name: string,
  seenIn: Material['seenIn'] = {},
  code: MaterialCode = { text: FIRST_MATERIAL_CODE },
): Material {
  const empty: Material = { ...newMaterial(name, seenIn), surface: EMPTY_GRAPH };
  return applyChanges(empty, setMaterialCode(empty, code).changes);
}
