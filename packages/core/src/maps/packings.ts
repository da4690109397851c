import type { MaterialImage } from '@brelvin/contract';

/** What a map tells of a surface. */
export type MapMeaning =
  'colour' | 'specular' | 'roughness' | 'gloss' | 'metallic' | 'normal' | 'height' | 'occlusion' | 'opacity' | 'emission';

export const MEANING_WORDS: Readonly<Record<MapMeaning, string>> = {
  colour: 'Colour',
  specular: 'Highlight colour',
  roughness: 'Roughness',
  gloss: 'Gloss',
  metallic: 'Metallic',
  normal: 'Normal',
  height: 'Height',
  occlusion: 'Occlusion',
  opacity: 'Opacity',
  emission: 'Emission',
};

/** An outlet of the image node, and what runs out of it. */
export interface Feed {
  readonly outlet: 'colour' | 'alpha' | 'red' | 'green' | 'blue';
  readonly meaning: MapMeaning;
}

export interface Packing {
  readonly label: string;
  /** What the map means, for somebody who has not met one. */
  readonly help: string;
  readonly role: MaterialImage['role'];
  readonly feeds: readonly Feed[];
  /** Of a normal map: its green is bright where a bump falls off downwards. */
  readonly greenDown?: boolean;
}

const one = (meaning: MapMeaning, outlet: Feed['outlet'] = 'red'): readonly Feed[] => [{ outlet, meaning }];

/** How images hold maps: one in all channels, or several in one file. */
export const PACKINGS = {
  colour: {
    label: 'Colour',
    help: 'What a matte surface scatters, or a metal mirrors; without any light in it. Read as sRGB.',
    role: 'colour',
    feeds: one('colour', 'colour'),
  },
  colourOpacity: {
    label: 'Colour, opacity in alpha',
    help: 'Colour, and in its alpha how much of it is there: 0 lets all through.',
    role: 'colour',
    feeds: [...one('colour', 'colour'), ...one('opacity', 'alpha')],
  },
  specular: {
    label: 'Highlight colour',
    help: 'Colour and strength of what the surface mirrors, by the older way of working without a metallic map. Read as sRGB.',
    role: 'colour',
    feeds: one('specular', 'colour'),
  },
  specularGloss: {
    label: 'Highlight colour, gloss in alpha',
    help: 'Colour of highlights, and in its alpha how sharp they are: white is a mirror.',
    role: 'colour',
    feeds: [...one('specular', 'colour'), ...one('gloss', 'alpha')],
  },
  roughness: {
    label: 'Roughness',
    help: 'Black mirrors sharply, white is dull. Numbers, read as they are stored.',
    role: 'data',
    feeds: one('roughness'),
  },
  gloss: {
    label: 'Gloss',
    help: 'The other way round of roughness: white mirrors sharply. Numbers, read as they are stored.',
    role: 'data',
    feeds: one('gloss'),
  },
  metallic: {
    label: 'Metallic',
    help: 'White is bare metal, black is anything else; greys only where both meet in one pixel.',
    role: 'data',
    feeds: one('metallic'),
  },
  metallicGloss: {
    label: 'Metallic, gloss in alpha',
    help: 'Metallic in red, and in its alpha how sharply it mirrors: white is a mirror.',
    role: 'data',
    feeds: [...one('metallic'), ...one('gloss', 'alpha')],
  },
  normal: {
    label: 'Normal, green up',
    help: 'Where each point leans: red to the right, green up (+Y). Lit from above, bumps are bright above in green.',
    role: 'data',
    feeds: one('normal', 'colour'),
  },
  normalDown: {
    label: 'Normal, green down',
    help: 'Where each point leans, with green the other way up (−Y). Read the wrong way, bumps turn to dents when light comes from above.',
    role: 'data',
    feeds: one('normal', 'colour'),
    greenDown: true,
  },
  height: {
    label: 'Height',
    help: 'White is high, black is deep. Moves the surface, or bends its normals.',
    role: 'data',
    feeds: one('height'),
  },
  occlusion: {
    label: 'Occlusion',
    help: 'How much light from all around gets here: crevices are dark. Lamps are not dimmed by it.',
    role: 'data',
    feeds: one('occlusion'),
  },
  opacity: { label: 'Opacity', help: 'White is there, black is a hole.', role: 'data', feeds: one('opacity') },
  emission: {
    label: 'Emission',
    help: 'Light that the surface gives of its own. Read as sRGB.',
    role: 'colour',
    feeds: one('emission', 'colour'),
  },
  occlusionRoughnessMetallic: {
    label: 'Occlusion, roughness, metallic',
    help: 'Three maps in one file: occlusion in red, roughness in green, metallic in blue.',
    role: 'data',
    feeds: [...one('occlusion', 'red'), ...one('roughness', 'green'), ...one('metallic', 'blue')],
  },
  roughnessMetallicOcclusion: {
    label: 'Roughness, metallic, occlusion',
    help: 'Three maps in one file: roughness in red, metallic in green, occlusion in blue.',
    role: 'data',
    feeds: [...one('roughness', 'red'), ...one('metallic', 'green'), ...one('occlusion', 'blue')],
  },
  metallicRoughnessOcclusion: {
    label: 'Metallic, roughness, occlusion',
    help: 'Three maps in one file: metallic in red, roughness in green, occlusion in blue.',
    role: 'data',
    feeds: [...one('metallic', 'red'), ...one('roughness', 'green'), ...one('occlusion', 'blue')],
  },
  roughnessMetallic: {
    label: 'Roughness in green, metallic in blue',
    help: 'Two maps in one file, as glTF has them: roughness in green, metallic in blue.',
    role: 'data',
    feeds: [...one('roughness', 'green'), ...one('metallic', 'blue')],
  },
} as const satisfies Readonly<Record<string, Packing>>;

export type PackingId = keyof typeof PACKINGS;

export function packingOf(id: PackingId): Packing {
  return PACKINGS[id];
}
