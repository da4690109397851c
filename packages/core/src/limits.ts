/** Characters that a text of shading code may have. */
export const LONGEST_SOURCE = 200_000;
