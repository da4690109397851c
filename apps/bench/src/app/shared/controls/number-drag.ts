/** How a drag on a number field turns pixels into steps: the farther off the field, the finer. */
const ZONES = [
  { upTo: 28, factor: 1, label: '× 1' },
  { upTo: 84, factor: 0.1, label: '× 0.1' },
  { upTo: Infinity, factor: 0.01, label: '× 0.01' },
] as const;

export interface NumberRange {
  readonly low?: number;
  readonly high?: number;
  readonly whole?: boolean;
}

export function dragZone(distance: number): { readonly factor: number; readonly label: string } {
  return ZONES.find((zone) => Math.abs(distance) <= zone.upTo) ?? ZONES[2];
}

/** The change one pixel makes, before the zone. */
export function stepPerPixel(value: number, { low, high, whole }: NumberRange): number {
  if (whole) return 1 / 16;
  if (low !== undefined && high !== undefined) return (high - low) / 200;
  return Math.max(Math.abs(value) * 0.01, 0.005);
}

export function withinRange(value: number, { low = -1e9, high = 1e9, whole }: NumberRange): number {
  const limited = Math.min(Math.max(value, low), high);
  return whole ? Math.round(limited) : limited;
}

/** A number with as many digits as are of use: at most three behind the point. */
export function numberText(value: number): string {
  if (!Number.isFinite(value)) return '–';
  const size = Math.abs(value);
  if (size !== 0 && (size < 0.001 || size >= 1e6)) return value.toExponential(2);
  return String(Number(value.toFixed(3)));
}
