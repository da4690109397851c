/** What a direction of unit length is. All point away from the surface. */
export type DirectionKind = 'normal' | 'directionToLight' | 'directionToEye';

/** A direction in a text, and whether it was turned round on the way. */
export interface WrittenDirection {
  readonly kind: DirectionKind;
  readonly turned: boolean;
}
