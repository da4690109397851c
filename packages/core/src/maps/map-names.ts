import type { PackingId } from './packings';

/** What a file's name says it holds. */
export interface NamedMap {
  readonly packing: PackingId;
  /** The name says which way its green points. */
  readonly saysGreen?: boolean;
  /** What is left of the name: of what it is a map. */
  readonly of: string;
}

/** Words of the trade, run together and in small letters. */
const WORDS: Readonly<Partial<Record<PackingId, string>>> = {
  colour: 'basecolor basecolour basecol albedo alb diffuse diffusecolor diff dif color colour col bc base',
  specular: 'specular specularcolor specularlevel spec spc reflection refl',
  specularGloss: 'specularglossiness specglossiness specgloss sg speculargloss specularsmoothness',
  roughness: 'roughness rough rgh rou',
  gloss: 'glossiness gloss gls smoothness smooth shininess',
  metallic: 'metallic metalness metallness metal met mtl metalic',
  metallicGloss: 'metallicsmoothness metallicgloss metallicglossiness metalgloss metalsmoothness',
  normal: 'normal normals normalmap nrm nor norm nml nmap normalgl normalopengl normalogl nrmgl norgl normgl tangentspace',
  normalDown: 'normaldx normaldirectx normald3d nrmdx nordx normdx',
  height: 'height heightmap displacement displace disp dsp bump bumpmap hgt elevation',
  occlusion: 'ao ambientocclusion occlusion occ ambient mixedao cavity',
  opacity: 'opacity alpha transparency transparent mask cutout',
  emission: 'emission emissive emissioncolor emissivecolor emit emis glow selfillumination lightmap',
  occlusionRoughnessMetallic:
    'orm arm aorm occlusionroughnessmetallic aoroughnessmetallic aoroughmetal ambientocclusionroughnessmetallic occlusionroughnessmetalness aorm',
  roughnessMetallicOcclusion: 'rma rmao roughnessmetallicocclusion roughnessmetallicao',
  metallicRoughnessOcclusion: 'mra mrao metallicroughnessocclusion metallicroughnessao',
  roughnessMetallic: 'metallicroughness metalrough roughnessmetallic metalroughness roughmetal',
};

/** One letter at the end of a name, as some studios have it. */
const LETTERS: Readonly<Record<string, PackingId>> = {
  b: 'colour',
  c: 'colour',
  d: 'colour',
  s: 'specular',
  r: 'roughness',
  g: 'gloss',
  m: 'metallic',
  n: 'normal',
  h: 'height',
  o: 'occlusion',
  e: 'emission',
};

const KNOWN: ReadonlyMap<string, PackingId> = new Map(
  Object.entries(WORDS).flatMap(([packing, words]) => words.split(' ').map((word) => [word, packing as PackingId] as const)),
);

/** Sizes, depths, numbers and words that every map may have. */
const NOISE = /^(\d+k?|\d+x\d+|\d+bits?|u?int\d+|map|tex|texture|img|image|var\d*|v\d+|lod\d+|png|jpe?g|webp|udim)$/;
const MOST_WORDS = 4;
/** A file that was turned into another kind may carry both endings. */
const ENDINGS = /(\.(png|jpe?g|webp|tiff?|tga|exr|hdr|bmp|psd))+$/i;

/**
 * Reads what an image is from its name.
 *
 * @param name of a file, with folders and ending
 */
export function readMapName(name: string): NamedMap | undefined {
  const words = wordsOf(name);
  for (let end = words.length; end > 0; end--) {
    for (let count = Math.min(MOST_WORDS, end); count > 0; count--) {
      const packing = KNOWN.get(words.slice(end - count, end).join(''));
      if (!packing) continue;
      const [after = ''] = words.slice(end);
      const before = words.slice(0, end - count);
      if (packing === 'normal' || packing === 'normalDown') return normalOf(packing, words.slice(end - count, end).join(''), after, before);
      return { packing, of: before.join(' ') };
    }
    // What stands behind the word that tells may only be what tells nothing, or which way green points.
    if (!NOISE.test(words[end - 1] ?? '') && !GREEN.has(words[end - 1] ?? '')) break;
  }
  const last = words.filter((word) => !NOISE.test(word)).at(-1) ?? '';
  const letter = words.length > 1 ? LETTERS[last] : undefined;
  return letter ? { packing: letter, of: words.slice(0, words.lastIndexOf(last)).join(' ') } : firstWord(words);
}

const GREEN: ReadonlyMap<string, PackingId> = new Map([
  ['gl', 'normal'],
  ['opengl', 'normal'],
  ['ogl', 'normal'],
  ['yup', 'normal'],
  ['dx', 'normalDown'],
  ['directx', 'normalDown'],
  ['d3d', 'normalDown'],
  ['ydown', 'normalDown'],
]);

function normalOf(packing: PackingId, word: string, after: string, before: readonly string[]): NamedMap {
  const said = GREEN.get(after) ?? GREEN.get(before.at(-1) ?? '');
  const inWord = packing === 'normalDown' || /(gl|opengl|ogl)$/.test(word);
  return { packing: said ?? packing, saysGreen: said !== undefined || inWord, of: before.filter((each) => !GREEN.has(each)).join(' ') };
}

/** A name may also begin with what it holds. */
function firstWord(words: readonly string[]): NamedMap | undefined {
  for (let count = Math.min(MOST_WORDS, words.length); count > 0; count--) {
    const packing = KNOWN.get(words.slice(0, count).join(''));
    if (packing) return { packing, of: words.slice(count).join(' ') };
  }
  return undefined;
}

function wordsOf(name: string): string[] {
  const file = name.split(/[/\\]/).at(-1) ?? '';
  return file
    .replace(ENDINGS, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .replace(/(\d)([A-Z][a-z])/g, '$1 $2')
    .replace(/([A-Z]+)([A-Z][a-z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z\d]+/)
    .filter(Boolean);
}
