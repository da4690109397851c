import type { FrameGlobals } from '../compile/material-values';

export const TERMS = ['ambient', 'diffuse', 'specular', 'reflection', 'transmission', 'emission'] as const;
export type Term = (typeof TERMS)[number];

/** Properties of a surface that can be seen instead of it; in the order of their numbers in the program. */
export const SURFACE_VIEWS = [
  'normals',
  'tangents',
  'uv',
  'secondUv',
  'position',
  'depth',
  'facing',
  'rings',
  'marks',
  'shadow',
  'occlusion',
  'parts',
] as const;
/** Of fields alone; meshes beside them are shaded. */
export const FIELD_VIEWS = ['steps'] as const;
export const WIRE_VIEWS = ['wires', 'wiresOver'] as const;
export type DebugView = 'none' | (typeof SURFACE_VIEWS)[number] | (typeof FIELD_VIEWS)[number] | (typeof WIRE_VIEWS)[number];

/** How the picture is taken apart. */
export interface Inspection {
  /** By term; 1 is as it is. */
  readonly weights: Readonly<Record<Term, number>>;
  /** How strongly shadows count, 0…1. */
  readonly shadow: number;
  /** How strongly near surfaces occlude, 0…1. */
  readonly occlusion: number;
  /** The colour of the surface without light, or light on a white surface. */
  readonly surface: 'whole' | 'albedo' | 'light';
  readonly view: DebugView;
  /** The light that distance rings are drawn round: its number from 0. */
  readonly light: number;
  /** Metres from the eye between which depth is drawn from white to black. */
  readonly nearest: number;
  readonly farthest: number;
  /** Steps through a field that are at the end of the scale. */
  readonly mostSteps: number;
}

export const WHOLE_PICTURE: Inspection = {
  weights: { ambient: 1, diffuse: 1, specular: 1, reflection: 1, transmission: 1, emission: 1 },
  shadow: 1,
  occlusion: 1,
  surface: 'whole',
  view: 'none',
  light: 0,
  nearest: 1,
  farthest: 10,
  mostSteps: 64,
};

/** Whether a picture needs surfaces that can be taken apart. */
export function takesApart({ weights, shadow, occlusion, surface, view }: Inspection): boolean {
  const seen = view !== 'none' && !isWireView(view);
  return seen || surface !== 'whole' || shadow !== 1 || occlusion !== 1 || TERMS.some((term) => weights[term] !== 1);
}

export function isWireView(view: DebugView): boolean {
  return (WIRE_VIEWS as readonly string[]).includes(view);
}

/** Whether what is seen is a property, which no exposure or tone curve may bend. */
export function showsProperty({ view }: Inspection): boolean {
  return [...SURFACE_VIEWS, ...FIELD_VIEWS].some((each) => each === view);
}

/** Whether fields are drawn by the steps that they take. */
export function showsSteps({ view }: Inspection): boolean {
  return view === 'steps';
}

/** The members of the block `Inspect`. */
export function inspectGlobals({
  weights,
  shadow,
  occlusion,
  surface,
  view,
  light,
  nearest,
  farthest,
  mostSteps,
}: Inspection): FrameGlobals {
  // Meshes beside fields whose steps are seen.
  const seen = view === 'steps' ? 'facing' : view;
  const number = (SURFACE_VIEWS as readonly string[]).indexOf(seen) + 1;
  return new Map([
    ['termWeights', [weights.ambient, weights.diffuse, weights.specular, weights.reflection]],
    ['moreWeights', [weights.transmission, weights.emission, shadow, occlusion]],
    ['inspectView', [number, { whole: 0, albedo: 1, light: 2 }[surface], light, 0]],
    ['inspectRange', [nearest, farthest, mostSteps, 0]],
  ]);
}
