import type { ObjectSchema } from '../schema/schema';
import { DISTANCE_FIELD, FIELD_VERSION, type DistanceField } from './field';
import { FUNCTION_VERSION, LIBRARY_FUNCTION, type LibraryFunction } from './function';
import { LIGHT_RIG, RIG_VERSION, type LightRig } from './light-rig';
import { MATERIAL, MATERIAL_VERSION, type Material } from './material';
import { SET_VERSION, STAGE_SET, type StageSet } from './set';

export type BrelvinDocument = Material | StageSet | LightRig | LibraryFunction | DistanceField;
export type DocumentKind = 'material' | 'set' | 'rig' | 'function' | 'field';

interface KindEntry {
  readonly format: BrelvinDocument['format'];
  /** The form that is written today. */
  readonly version: number;
  readonly schema: ObjectSchema<BrelvinDocument>;
}

export const DOCUMENT_KINDS: Readonly<Record<DocumentKind, KindEntry>> = {
  material: { format: 'brelvin-material', version: MATERIAL_VERSION, schema: MATERIAL },
  set: { format: 'brelvin-set', version: SET_VERSION, schema: STAGE_SET },
  function: { format: 'brelvin-function', version: FUNCTION_VERSION, schema: LIBRARY_FUNCTION },
  field: { format: 'brelvin-field', version: FIELD_VERSION, schema: DISTANCE_FIELD },
  rig: { format: 'brelvin-light-rig', version: RIG_VERSION, schema: LIGHT_RIG },
};

export const KIND_NAMES = Object.keys(DOCUMENT_KINDS) as readonly DocumentKind[];
