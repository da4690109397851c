import type { MaterialImage } from '@brelvin/contract';
import type { ImageFacts } from './image-facts';
import { readMapName } from './map-names';
import { packingOf } from './packings';

/** Besides names of maps: words of images that hold numbers. */
const DATA_WORDS = /(^|[^a-z])(normal|rough|metal|height|mask|noise|data|flow|id)([^a-z]|$)/i;

/** How an image is to be read, as its name says. */
export function roleByName(name: string): MaterialImage['role'] {
  const named = readMapName(name);
  if (named) return packingOf(named.packing).role;
  return DATA_WORDS.test(name) ? 'data' : 'colour';
}

/** The same, and where its name says nothing, as its pixels say: those of a normal map are numbers. */
export function roleOf(name: string, facts: ImageFacts | undefined): MaterialImage['role'] {
  return facts?.normals ? 'data' : roleByName(name);
}
