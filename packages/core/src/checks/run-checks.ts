import { albedo } from './albedo';
import { behindGlass } from './behind-glass';
import { belowZero } from './below-zero';
import { clippedPicture } from './clipped-picture';
import { clampedCosine } from './clamped-cosine';
import { silenceKey, type Check, type CheckInput, type Finding } from './check';
import { countedLoops } from './counted-loops';
import { depthOffset } from './depth-offset';
import { directionKinds } from './direction-kinds';
import { emptyRanges } from './empty-ranges';
import { evenMap } from './even-map';
import { heldImage } from './held-image';
import { fewSegments } from './few-segments';
import { environmentLight } from './environment-light';
import { imageCount } from './image-count';
import { imageRoles } from './image-roles';
import { madeForMesh } from './made-for-mesh';
import { mapSizes } from './map-sizes';
import { mirroredUvs } from './mirrored-uvs';
import { insideOut } from './inside-out';
import { noEffect } from './no-effect';
import { normalSenses } from './normal-senses';
import { openDock } from './open-dock';
import { openEdges } from './open-edges';
import { overBudget } from './over-budget';
import { partMaterials } from './part-materials';
import { physicalRanges } from './physical-ranges';
import { shellShadow } from './shell-shadow';
import { leftOutOnFields } from './left-out-on-fields';
import { tracedFields } from './traced-fields';
import { travellingDirections } from './travelling-directions';
import { turnedNormalMap } from './turned-normal-map';
import { unitVectors } from './unit-vectors';
import { unnamedImages } from './unnamed-images';
import { unused } from './unused-nodes';

/** In the order in which findings are shown. */
export const CHECKS: readonly Check[] = [
  openDock,
  partMaterials,
  overBudget,
  imageCount,
  directionKinds,
  travellingDirections,
  unitVectors,
  clampedCosine,
  belowZero,
  imageRoles,
  normalSenses,
  turnedNormalMap,
  mapSizes,
  evenMap,
  heldImage,
  fewSegments,
  openEdges,
  madeForMesh,
  mirroredUvs,
  physicalRanges,
  albedo,
  environmentLight,
  clippedPicture,
  shellShadow,
  behindGlass,
  depthOffset,
  countedLoops,
  emptyRanges,
  noEffect,
  insideOut,
  tracedFields,
  leftOutOnFields,
  unnamedImages,
  unused,
];

/** What was found, and how much of it is switched off for its place. */
export interface Checked {
  /** How many mistakes were looked for. */
  readonly kinds: number;
  readonly findings: readonly Finding[];
  readonly silenced: number;
  /** Checks that could not be made: a defect of ours. */
  readonly faults: readonly CheckFault[];
}

export interface CheckFault {
  readonly check: string;
  readonly message: string;
  readonly stack?: string;
}

/** A check that throws is told of, and does not keep the others from being made. */
export function runChecks(input: CheckInput, checks: readonly Check[] = CHECKS): Checked {
  const faults: CheckFault[] = [];
  const all = checks.flatMap((check) => {
    try {
      return check.find(input).map((found): Finding => ({ ...found, check: check.id }));
    } catch (error) {
      const { message, stack } = error instanceof Error ? error : { message: String(error), stack: undefined };
      faults.push({ check: check.id, message, stack });
      return [];
    }
  });
  const findings = all.filter((finding) => !input.material.silenced[silenceKey(finding)]);
  return { kinds: checks.length, findings, silenced: all.length - findings.length, faults };
}
