import { libraryProgram } from '../../catalogue/library';
import { evaluateCall } from '../../ir/evaluate';
import { components } from '../../ir/value';

/** As many as the program has room for. */
const MOST_LOOKS = 640;

/** Looks of each pixel of a level: the wider the lobe, the more, and the fewer pixels there are. */
const SAMPLES = [1, 80, 160, 256, 384, MOST_LOOKS] as const;

/** The directions in which each pixel of a level looks; see `environment_filter`. */
export interface FilterLooks {
  /** How many there are, with those below the horizon, which are left out. */
  readonly all: number;
  /** Four numbers each. */
  readonly looks: readonly (readonly number[])[];
  readonly cosines: number;
}

const known = new Map<string, FilterLooks>();

/**
 * Worked out once, by the library's own formula: they are the same for all pixels.
 *
 * @param side of the cube that is read, pixels
 */
export function filterLooks(level: number, alpha: number, side: number): FilterLooks {
  const key = `${level} ${alpha} ${side}`;
  const before = known.get(key);
  if (before) return before;
  const { functions } = libraryProgram('environment_filter.frag');
  const declared = functions.get('filterLook(int,float,float,float)');
  if (!declared) throw new ReferenceError('the program that filters environments must define filterLook');
  const all = SAMPLES[level] ?? 1;
  const looks = Array.from({ length: all }, (_, index) =>
    components(evaluateCall(declared, [[index], [all], [alpha], [side]], { functions, globals: new Map() }).result),
  ).filter(([, , cosine = 0]) => cosine > 0);
  const made = { all, looks, cosines: looks.reduce((sum, [, , cosine = 0]) => sum + cosine, 0) };
  known.set(key, made);
  return made;
}

/** As many as a program wants to have. */
export function paddedLooks({ looks }: FilterLooks): (readonly number[])[] {
  return Array.from({ length: MOST_LOOKS }, (_, index) => looks[index] ?? [0, 0, 1, 0]);
}
