import type { Library } from '../../catalogue/library';
import type { Meaning } from '../../catalogue/kind';
import type { DirectionKind, KnownDirections } from '../../language';

const KINDS: ReadonlySet<Meaning> = new Set<Meaning>(['normal', 'directionToLight', 'directionToEye']);

/** What no node gives: fields of what `paint` is given, and names of whole programs. */
const BY_NAME: readonly (readonly [string, DirectionKind])[] = [
  ['Surface.normal', 'normal'],
  ['Surface.toEye', 'directionToEye'],
  ['LightHere.toLight', 'directionToLight'],
  ['uniform sunDirection', 'directionToLight'],
  ['in normal', 'normal'],
];

const known = new WeakMap<Library, KnownDirections>();

/** The directions of the shader library, as the documentation of its functions has them. */
export function knownDirections(library: Library): KnownDirections {
  const found = known.get(library);
  if (found) return found;
  const given = new Map<string, DirectionKind>(BY_NAME);
  const wanted = new Map<string, readonly (DirectionKind | undefined)[]>();
  for (const { inlets, outlets, overloads } of library.kinds.values())
    for (const { signature, parameters, result } of overloads) {
      for (const { name, meaning } of outlets) {
        const key = result.kind === 'struct' ? `${result.name}.${name}` : signature;
        const kind = directionOf(meaning);
        if (kind) given.set(key, kind);
      }
      const wants = parameters.map((_, index) => directionOf(inlets[index]?.meaning));
      if (wants.some((each) => each)) wanted.set(signature, wants);
    }
  const made = { given, wanted };
  known.set(library, made);
  return made;
}

function directionOf(meaning: Meaning | undefined): DirectionKind | undefined {
  return meaning && KINDS.has(meaning) ? (meaning as DirectionKind) : undefined;
}
