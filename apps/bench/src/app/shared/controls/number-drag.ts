/** How a drag on a number field turns pixels into steps: the farther off the field, the finer. */
const ZONES = [
  { upTo: 28, factor: 1, label: '× 1' },
  { upTo: 84, factor: 0.1, label: '× 0.1' },
  { upTo: Infinity, factor: 0.01, label: '× 0.01' },
] as const;

export interface NumberRange {
  readonly low?: number;
  readonly high?: number;
  /** Where values beyond it make sense, too: it is then only how far a drag goes. */
  readonly open?: 'above' | 'both';
  readonly whole?: boolean;
}

/** Beyond it no number of a document goes. */
const FARTHEST = 1e9;

/** What may be typed. */
export function limitsOf({ low = -FARTHEST, high = FARTHEST, open }: NumberRange): readonly [least: number, most: number] {
  return [open === 'both' ? -FARTHEST : low, open === undefined ? high : FARTHEST];
}

/** What is said of a typed number that cannot be; nothing of one that can. */
export function refusalOf(value: number, range: NumberRange): string | undefined {
  const [least, most] = limitsOf(range);
  if (value > most) return `at most ${numberText(most)}`;
  if (value < least) return `at least ${numberText(least)}`;
  return range.whole && !Number.isInteger(value) ? 'whole numbers only' : undefined;
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

export function withinRange(value: number, range: NumberRange): number {
  const [least, most] = limitsOf(range);
  const limited = Math.min(Math.max(value, least), most);
  return range.whole ? Math.round(limited) : limited;
}

/** A number with as many digits as are of use: at most three behind the point. */
export function numberText(value: number): string {
  if (!Number.isFinite(value)) return '–';
  const size = Math.abs(value);
  if (size !== 0 && (size < 0.001 || size >= 1e6)) return value.toExponential(2);
  return String(Number(value.toFixed(3)));
}
