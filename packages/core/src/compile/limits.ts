/** 16 image units, the least a WebGL2 device has, less the system's five. */
export const MOST_IMAGES = 11;
/** 15 varyings, the least a WebGL2 device has, less those of a surface. */
export const MOST_CARRIED = 4;

export const TOO_MANY_CARRIED = `A material may carry ${MOST_CARRIED} values to its pixels; this is one too many. Combine numbers into one vector.`;
