/** A number that shapes a mesh. Lengths in metres. */
export interface MeshNumber {
  readonly name: string;
  readonly label: string;
  readonly default: number;
  readonly low: number;
  readonly high: number;
  readonly whole: boolean;
}

/** A value brought into its range; what is not set takes the default. */
export function meshNumber(spec: MeshNumber, value: number | undefined): number {
  const within = Math.min(Math.max(value ?? spec.default, spec.low), spec.high);
  return spec.whole ? Math.round(within) : within;
}
