export const RIBBON_TYPES = ['number', 'vec2', 'vec3', 'vec4', 'colour', 'light', 'field', 'stops', 'image', 'cubeImage'] as const;

/** What runs along a ribbon. */
export type RibbonType = (typeof RIBBON_TYPES)[number];
