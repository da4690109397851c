/** A box in which a field is looked for. Object space, metres. */
export interface FieldBox {
  readonly low: readonly number[];
  readonly high: readonly number[];
}

/** A ray; its direction need not be of unit length. */
export interface SightLine {
  readonly origin: readonly number[];
  readonly direction: readonly number[];
}
