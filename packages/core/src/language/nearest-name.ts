import { distance } from 'fastest-levenshtein';
import type { Range } from '../ir/origin';
import { write, type CodeMend } from './diagnostics';

/** The candidate that differs least from `name`, if it differs by at most a third of its letters, rounded up. */
export function nearestName(name: string, candidates: Iterable<string>): string | undefined {
  // One letter is near to every other.
  if (name.length < 2) return undefined;
  let best: string | undefined;
  let bestDistance = Math.ceil(name.length / 3) + 1;
  for (const candidate of candidates) {
    if (Math.abs(candidate.length - name.length) >= bestDistance) continue;
    const edits = distance(name.toLowerCase(), candidate.toLowerCase());
    if (edits < bestDistance) {
      best = candidate;
      bestDistance = edits;
    }
  }
  return best;
}

/** Names that mean the same wherever shading code is written. */
const MEANINGS: readonly ReadonlySet<string>[] = [
  'time seconds clock elapsed now itime utime stagetime',
  'uv uvs vuv uv0 texcoord texcoords texturecoord st',
  'normal nrm vnormal worldnormal surfacenormal',
  'position pos vposition worldposition worldpos surfaceposition',
  'colour color tint albedo basecolor basecolour diffusecolor diffusecolour col',
  'toeye eyedir viewdir viewdirection surfacetoeye',
  'eye camera camerapos cameraposition viewpos eyeposition',
  'sundirection lightdir lightdirection tolight directiontolight',
  'suncolour lightcolor lightcolour suncolor',
  'picturesize resolution iresolution viewport screensize',
].map((words) => new Set(words.split(' ')));

/** A candidate that means the same, though it is written otherwise: `time` for `iTime`. */
export function nameAlike(name: string, candidates: Iterable<string>): string | undefined {
  const plain = (each: string): string => each.replace(/^[ua]_|_/g, '').toLowerCase();
  const meaning = MEANINGS.find((each) => each.has(plain(name)));
  if (!meaning) return undefined;
  for (const each of candidates) if (each !== name && meaning.has(plain(each))) return each;
  return undefined;
}

/** A mend that writes the right name: one that means the same before one that is written alike. */
export function nearestMend(name: string, range: Range, candidates: Iterable<string>): CodeMend | undefined {
  const all = [...candidates];
  const near = nameAlike(name, all) ?? nearestName(name, all);
  return near === undefined ? undefined : write(near, { from: range.from, to: range.from + name.length });
}
