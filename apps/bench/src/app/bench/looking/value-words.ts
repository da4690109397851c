import type { RibbonType } from '@brelvin/contract';

const PARTS: Partial<Record<RibbonType, number>> = { number: 1, vec2: 2, vec3: 3, vec4: 4, colour: 3, light: 3 };

/** A value in few words: three digits of each of its numbers. */
export function valueWords(value: readonly number[], type: RibbonType): string {
  return value
    .slice(0, PARTS[type] ?? 4)
    .map(numberWords)
    .join(' ');
}

export function numberWords(value: number): string {
  if (Number.isNaN(value)) return 'no number';
  if (!Number.isFinite(value)) return value > 0 ? '∞' : '−∞';
  const size = Math.abs(value);
  if (size !== 0 && (size < 0.0005 || size >= 1e5)) return value.toExponential(1).replace('-', '−');
  const digits = size >= 100 ? 0 : size >= 10 ? 1 : size >= 1 ? 2 : 3;
  return value.toFixed(digits).replace('-', '−');
}
