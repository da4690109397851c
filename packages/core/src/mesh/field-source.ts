import type { SetMesh } from '@brelvin/contract';
import { LruCache } from '../cache/lru-cache';
import { FieldSampler } from '../field/field-sampler';
import { measuredSlope, STEEPEST } from '../field/measured-slope';
import { occupiedBounds } from '../field/occupied-bounds';
import { FIRST_FIELD, readField, readsTime, type FieldProgram, type FieldReading } from '../field/read-field';
import { FormulaError } from './formula';
import type { Bounds } from './mesh';
import { meshNumber, type MeshNumber } from './mesh-number';

/** A field with where it is looked for, and how. */
export interface FieldSource {
  readonly program: FieldProgram;
  readonly sampler: FieldSampler;
  /** Where it has a surface, object space, metres. */
  readonly bounds: Bounds;
  /** Whether it changes with the Stage's clock. */
  readonly moves: boolean;
  /** The steepest slope that was found, or is said; 1 at least. */
  readonly slope: number;
  /** At most, along one line of sight. */
  readonly steps: number;
  /** Pixels from the surface that count as on it. */
  readonly epsilon: number;
  /** Nothing of it was found within the box. */
  readonly empty: boolean;
}

const metres = (name: string, label: string): MeshNumber => ({ name, label, default: 4, low: 0.01, high: 200, whole: false });

/** Numbers of a field as a set holds them: the box in which it is looked for, round its origin, and how it is traced. */
export const FIELD_NUMBERS: readonly MeshNumber[] = [
  metres('width', 'Width'),
  metres('height', 'Height'),
  metres('depth', 'Depth'),
  { name: 'steps', label: 'Most steps', default: 192, low: 8, high: 1024, whole: true },
  { name: 'epsilon', label: 'Epsilon, pixels', default: 0.1, low: 0.01, high: 8, whole: false },
  { name: 'slope', label: 'Steepest slope', default: 0, low: 0, high: STEEPEST, whole: false },
];

/** Texts that were read last; the same text is asked for by panels, checks and the Stage. */
const READ = new LruCache<FieldReading>(32);

function reading(text: string): FieldReading {
  const known = READ.get(text);
  if (known) return known;
  const made = readField(text);
  READ.set(text, made);
  return made;
}

/** The text of the field that a mesh shows: nothing where that is another document, which is not there. */
export function fieldText({ field, formula }: Pick<SetMesh, 'field' | 'formula'>): string | undefined {
  return formula ?? (field === undefined ? FIRST_FIELD : undefined);
}

/** Names of a field's parts, in order; those it has had last cannot be known of a text with an error. */
export function fieldRegions(text: string): readonly string[] {
  return reading(text).program?.regions.map(({ name }) => name) ?? [];
}

/**
 * Reads a field, and finds out where it is and how steep.
 *
 * @throws FormulaError for a text that cannot be read
 */
export function fieldSource(text: string, numbers: Readonly<Record<string, number>>): FieldSource {
  const { program, diagnostics } = reading(text);
  if (!program) {
    const [{ message, line, column }] = diagnostics;
    throw new FormulaError(message, line, column);
  }
  const value = (name: string): number => {
    const spec = FIELD_NUMBERS.find((each) => each.name === name);
    return spec ? meshNumber(spec, numbers[name]) : 0;
  };
  const high = ['width', 'height', 'depth'].map((name) => value(name) / 2);
  const box = { low: high.map((each) => -each), high };
  return { ...placed(text, program, box, value('slope')), steps: value('steps'), epsilon: value('epsilon') };
}

type PlacedField = Omit<FieldSource, 'steps' | 'epsilon'>;

/** What was found out of texts in boxes; it takes hundreds of values of the field. */
const PLACED = new LruCache<PlacedField>(8);

function placed(text: string, program: FieldProgram, box: Bounds, said: number): PlacedField {
  const key = JSON.stringify([text, box.high, said]);
  const known = PLACED.get(key);
  if (known) return known;
  const sampler = new FieldSampler(program);
  const moves = readsTime(program);
  const slope = Math.max(said || Math.min(measuredSlope(sampler, box), STEEPEST), 1);
  const occupied = occupiedBounds(sampler, box, slope);
  // What moves may leave where it stood.
  const made = { program, sampler, bounds: moves ? box : (occupied ?? box), moves, slope, empty: !moves && occupied === undefined };
  PLACED.set(key, made);
  return made;
}
