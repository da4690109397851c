import type { BrelvinDocument, DistanceField, LightRig, Material, StageSet } from '@brelvin/contract';
import { newMaterial } from '../document/new-documents';
import { withFields } from '../document/shown-fields';
import { writtenField } from '../compile/code/written-field';
import { DEMO_DOCUMENTS } from './demo-documents';

/** A document of the demo that lists show with a picture, and all that is drawn for it. */
export interface DemoScene {
  readonly id: string;
  /** Id of the material on the Bench, and itself. */
  readonly bench: string;
  readonly material: Material;
  readonly set: StageSet;
  readonly rig: LightRig;
  /** All that stands in the set is seen; what wears the material otherwise. */
  readonly whole: boolean;
}

/** Of a rig that no demo material was last seen under: shows highlights and what is mirrored. */
const SHOWN_UNDER_RIGS = 'material-lacquered-float';
const USUAL_RIG = 'rig-north-window';

/** Materials as their Bench opens them; sets with a material that was last seen there, rigs on one that was last seen under them. */
export function demoScenes(): DemoScene[] {
  return DEMO_DOCUMENTS.flatMap(({ id, document }): DemoScene[] => {
    switch (document.format) {
      case 'brelvin-material':
        return [sceneOf(id, id, document)];
      case 'brelvin-set': {
        const found = materials().find(([, { seenIn }]) => seenIn.set === id);
        if (found) return [{ ...sceneOf(id, ...found), whole: true }];
        return [{ id, bench: '', material: newMaterial(''), set: demoSet(id), rig: demoDocument(USUAL_RIG) as LightRig, whole: true }];
      }
      case 'brelvin-light-rig': {
        const found = materials().find(([, { seenIn }]) => seenIn.rig === id);
        const shown = sceneOf(id, ...(found ?? [SHOWN_UNDER_RIGS, demoDocument(SHOWN_UNDER_RIGS) as Material]));
        return [{ ...shown, rig: document }];
      }
      default:
        return [];
    }
  });
}

function sceneOf(id: string, bench: string, material: Material): DemoScene {
  const [set, rig] = [demoSet(material.seenIn.set), demoDocument(material.seenIn.rig) as LightRig];
  return { id, bench, material, set, rig, whole: false };
}

function materials(): [id: string, material: Material][] {
  return DEMO_DOCUMENTS.flatMap(({ id, document }): [string, Material][] =>
    document.format === 'brelvin-material' ? [[id, document]] : [],
  );
}

/** A set of the demo with the code of its fields. @throws RangeError when the demo has no such set */
export function demoSet(id: string | undefined): StageSet {
  const set = demoDocument(id) as StageSet;
  return { ...set, meshes: withFields(set.meshes, (field) => writtenField(demoDocument(field) as DistanceField).text) };
}

/** @throws RangeError when the demo has no such document */
export function demoDocument(id: string | undefined): BrelvinDocument {
  const found = DEMO_DOCUMENTS.find((each) => each.id === id);
  if (!found) throw new RangeError(`The demo has no document ${id}.`);
  return found.document;
}
