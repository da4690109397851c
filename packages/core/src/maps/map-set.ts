import type { ImageFacts } from './image-facts';
import { readMapName } from './map-names';
import { MEANING_WORDS, packingOf, type MapMeaning, type PackingId } from './packings';

/** Which surface a set of maps is laid on. */
export type MapSurface = 'physicalSurface' | 'blinnPhong';

/** An image that may be a map. */
export interface MapFile {
  readonly name: string;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  readonly facts?: ImageFacts;
}

/** What is proposed for one image. */
export interface ProposedMap {
  readonly file: MapFile;
  /** Nothing where it is left out. */
  readonly packing?: PackingId;
  /** Why it is read so, or left out; short. */
  readonly because: string;
}

export interface ProposedSet {
  readonly name: string;
  readonly surface: MapSurface;
  readonly maps: readonly ProposedMap[];
}

/** What each surface cannot use. */
const UNFIT: Readonly<Record<MapSurface, readonly MapMeaning[]>> = { physicalSurface: [], blinnPhong: ['metallic'] };

/** Names and pixels of several images as a set of maps. Proposed only: somebody looks it over. */
export function proposeMapSet(files: readonly MapFile[]): ProposedSet {
  const named = files.map((file) => ({ file, ...readOne(file) }));
  const has = (meaning: MapMeaning): boolean => named.some(({ packing }) => packing && meaningsOf(packing).includes(meaning));
  const surface: MapSurface = has('specular') && !has('metallic') && !has('roughness') ? 'blinnPhong' : 'physicalSurface';
  return { name: nameOf(named.map(({ of }) => of)), surface, maps: withoutDoubles(named) };
}

/** Whether several files are worth being taken for a set: at least two of them say different maps. */
export function looksLikeMapSet(names: readonly string[]): boolean {
  const meanings = new Set(names.flatMap((name) => readMapName(name)?.packing ?? []).flatMap(meaningsOf));
  return names.length > 1 && meanings.size > 1;
}

/** All that is to be told of a set before it is taken, in sentences. */
export function mapSetWords(maps: readonly ProposedMap[], surface: MapSurface): string[] {
  const used = maps.filter((each): each is ProposedMap & { packing: PackingId } => each.packing !== undefined);
  const words: string[] = [];
  const sizes = new Map<string, string[]>();
  for (const { file } of used) {
    const size = `${file.width} × ${file.height}`;
    sizes.set(size, [...(sizes.get(size) ?? []), file.name]);
  }
  if (sizes.size > 1) {
    const [largest = ''] = [...sizes].sort(([, a], [, b]) => b.length - a.length).map(([size]) => size);
    const others = [...sizes].filter(([size]) => size !== largest).flatMap(([size, names]) => names.map((name) => `${name} (${size})`));
    words.push(
      `Not all maps have one size: most have ${largest}, but ${others.join(', ')}. They fit, but details will not line up exactly.`,
    );
  }
  for (const meaning of UNFIT[surface]) {
    const lost = used.filter(({ packing }) => meaningsOf(packing).includes(meaning)).map(({ file }) => file.name);
    if (lost.length > 0) words.push(`${MEANING_WORDS[meaning]} (${lost.join(', ')}) means nothing to this surface and is not wired.`);
  }
  for (const { file, packing } of used) {
    const { greenDown } = packingOf(packing);
    const green = file.facts?.normals?.green;
    if (!meaningsOf(packing).includes('normal') || !green || green === 'unclear' || (green === 'down') === (greenDown ?? false)) continue;
    words.push(`${file.name}: its pixels look as if green pointed ${green}, but it is to be read as green ${greenDown ? 'down' : 'up'}.`);
  }
  return words;
}

export function meaningsOf(packing: PackingId): readonly MapMeaning[] {
  return packingOf(packing).feeds.map(({ meaning }) => meaning);
}

interface Read {
  readonly packing?: PackingId;
  readonly because: string;
  readonly of: string;
}

function readOne({ name, facts }: MapFile): Read {
  const read = readMapName(name);
  const alpha = facts !== undefined && facts.even[3] === undefined;
  if (!read) {
    const green = facts?.normals?.green;
    if (facts?.normals) return { packing: green === 'down' ? 'normalDown' : 'normal', because: 'its pixels look like normals', of: '' };
    return { because: 'its name does not say what it is', of: '' };
  }
  const because = 'by its name';
  const withAlpha = { colour: 'colourOpacity', specular: 'specularGloss', metallic: 'metallicGloss' } as const;
  if (alpha && read.packing in withAlpha)
    return { ...read, packing: withAlpha[read.packing as keyof typeof withAlpha], because: 'by its name, and its alpha is used' };
  if (read.packing === 'normal' && !read.saysGreen && facts?.normals?.green === 'down')
    return { ...read, packing: 'normalDown', because: 'by its name; its pixels look as if green pointed down' };
  return { ...read, because };
}

/** The better of two maps of one meaning stays; a map that tells several things goes before one that tells one of them. */
function withoutDoubles(named: readonly (Read & { readonly file: MapFile })[]): ProposedMap[] {
  const taken = new Map<MapMeaning, string>();
  const order = [...named].sort((a, b) => rank(a.packing) - rank(b.packing));
  const kept = new Set<MapFile>();
  const why = new Map<MapFile, string>();
  for (const { file, packing } of order) {
    if (!packing) continue;
    const meanings = meaningsOf(packing);
    const both = meanings.includes('gloss') && meanings.length === 1 ? taken.get('roughness') : undefined;
    const before = both ?? meanings.map((meaning) => taken.get(meaning)).find((each) => each !== undefined);
    if (before !== undefined) {
      why.set(file, `left out: ${before} tells that already`);
      continue;
    }
    for (const meaning of meanings) taken.set(meaning, file.name);
    kept.add(file);
  }
  return named.map(({ file, packing, because }) => ({
    file,
    packing: kept.has(file) ? packing : undefined,
    because: why.get(file) ?? because,
  }));
}

function rank(packing: PackingId | undefined): number {
  if (!packing) return 9;
  if (packing === 'normalDown') return 3;
  if (packing === 'gloss' || packing === 'opacity') return 4;
  return 2 - Math.min(meaningsOf(packing).length, 2);
}

/** What most names say they are maps of. */
function nameOf(all: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const each of all) if (each) counts.set(each, (counts.get(each) ?? 0) + 1);
  const [best = ''] = [...counts].sort(([, a], [, b]) => b - a).map(([name]) => name);
  return best ? best.charAt(0).toUpperCase() + best.slice(1) : 'Maps';
}
