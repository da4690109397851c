import type { BrelvinDocument, Material, StageSet } from '@brelvin/contract';
import { materialsOf } from './part-rules';
import { fieldsOf } from './shown-fields';

/** A file of the workspace that a document shows. */
export interface OwnedAsset {
  readonly sha256: string;
  /** As people know it. */
  readonly name: string;
}

/** The files that a document itself shows, each once. */
export function assetsOf(document: BrelvinDocument): OwnedAsset[] {
  const all = new Map(listed(document).map((each) => [each.sha256, each]));
  return [...all.values()];
}

function listed(document: BrelvinDocument): OwnedAsset[] {
  switch (document.format) {
    case 'brelvin-material':
      return Object.values(document.images).flatMap(filesOfImage);
    case 'brelvin-set':
      return Object.values(document.meshes).flatMap(({ source }) => (source ? [{ sha256: source.asset, name: source.file }] : []));
    case 'brelvin-light-rig':
      return [
        ...(document.environment?.assets ?? []).map((sha256) => ({ sha256, name: document.environment?.name ?? '' })),
        ...(document.backgroundImage ? filesOfImage(document.backgroundImage.image) : []),
      ];
    default:
      return [];
  }
}

function filesOfImage({ name, asset, faces }: Material['images'][string]): OwnedAsset[] {
  return (faces ?? [asset]).map((sha256) => ({ sha256, name }));
}

/** Ids of the documents that are seen with one: its set and light rig; fields that stand in a set, and what its parts wear. */
export function seenWith(document: BrelvinDocument): string[] {
  if (document.format === 'brelvin-set') return [...fieldsOf(document), ...materialsOf(document)];
  if (document.format !== 'brelvin-material') return [];
  const { set, rig } = document.seenIn;
  return [set, rig].filter((each) => each !== undefined);
}

/** A document whose references to others go by other ids; those that are not listed stay. */
export function withOtherIds(document: BrelvinDocument, ids: ReadonlyMap<string, string>): BrelvinDocument {
  const other = (id: string): string => ids.get(id) ?? id;
  if (document.format === 'brelvin-material') {
    const { set, rig } = document.seenIn;
    return { ...document, seenIn: { ...(set && { set: other(set) }), ...(rig && { rig: other(rig) }) } };
  }
  if (document.format !== 'brelvin-set') return document;
  const rules = Object.entries(document.partRules).map(([id, rule]) => [
    id,
    rule.material === undefined ? rule : { ...rule, material: other(rule.material) },
  ]);
  const meshes = Object.entries(document.meshes).map(([id, mesh]) => [
    id,
    mesh.field === undefined ? mesh : { ...mesh, field: other(mesh.field) },
  ]);
  return {
    ...document,
    meshes: Object.fromEntries(meshes) as StageSet['meshes'],
    partRules: Object.fromEntries(rules) as StageSet['partRules'],
  };
}
