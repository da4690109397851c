import type { Budget, LightRig, Material, OpacityMode, StageSet } from '@brelvin/contract';
import type { Library } from '../catalogue/library';
import type { ResolvedGraph } from '../compile/resolve';
import type { MaterialCost } from '../cost/material-cost';
import type { Edit } from '../document/edit';
import type { ImageFacts } from '../maps/image-facts';

/** `glass` lets light pass and bends it; the others as a material’s opacity mode. */
export type SeenThrough = 'glass' | OpacityMode;

/** What checks look at. */
export interface CheckInput {
  readonly material: Material;
  readonly resolved: ResolvedGraph;
  readonly catalogue: Library;
  /** What stands on the Stage, and which of the materials its rules name cannot be had, with the reason. */
  readonly set?: StageSet;
  readonly missingMaterials: ReadonlyMap<string, string>;
  /** The light that it stands in. */
  readonly rig?: LightRig;
  /** Id of the material, which parts without a rule wear. */
  readonly bench?: string;
  /** How materials on the Stage are seen through, by id; those that hide what is behind them are left out. */
  readonly seenThrough?: ReadonlyMap<string, SeenThrough>;
  /** What is known of the pixels of images, by their address. */
  readonly images?: ReadonlyMap<string, ImageFacts>;
  /** The part of the picture that is brighter than it can show, 0…1. */
  readonly clipped?: number;
  /** What the workspace allows, and what it costs: estimated where that bounds it. */
  readonly budget?: Budget;
  readonly cost?: MaterialCost;
  /** Of a picture of 1920 × 1080, where it was measured. */
  readonly milliseconds?: number;
  readonly newId: () => string;
}

/** One undoable step that mends what was found. */
export interface Mend {
  readonly label: string;
  readonly document: 'material' | 'set' | 'rig';
  readonly edit: Edit;
}

/** A well-known mistake, where it is, why it matters, and how to mend it. */
export interface Finding {
  readonly check: string;
  /** Names the place, the same as long as it is there; a check can be switched off for it. */
  readonly place: string;
  /** Path of the node to show. */
  readonly node?: string;
  readonly title: string;
  /** Teaches: what happens because of it, in plain words. */
  readonly explanation: string;
  readonly mend?: Mend;
  /** Another way out. */
  readonly otherMend?: Mend;
}

export interface Check {
  readonly id: string;
  readonly find: (input: CheckInput) => readonly Omit<Finding, 'check'>[];
}

/** How a finding is named where it is switched off. */
export function silenceKey({ check, place }: Pick<Finding, 'check' | 'place'>): string {
  return `${check} ${place}`.replace(/[^A-Za-z0-9_ /.-]/g, '-').slice(0, 200);
}
