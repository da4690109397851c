/** Places in the dock, in CSS pixels from its top; the stylesheet uses the same. */
export const DOCK_TOP = 56;
export const DOCK_STEP = 64;

export function dockY(index: number): number {
  return DOCK_TOP + index * DOCK_STEP;
}
