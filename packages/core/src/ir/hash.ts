/**
 * Two independent 32-bit FNV-1a hashes as hex (Fowler, Noll, Vo; IETF draft-eastlake-fnv). Tells texts apart,
 * guards nothing.
 */
export function hashText(text: string): string {
  let forward = 0x811c9dc5;
  let backward = 0x811c9dc5;
  for (let index = 0; index < text.length; index++) {
    forward = Math.imul(forward ^ text.charCodeAt(index), 0x01000193);
    backward = Math.imul(backward ^ text.charCodeAt(text.length - 1 - index), 0x01000193);
  }
  const hex = (value: number): string => (value >>> 0).toString(16).padStart(8, '0');
  return hex(forward) + hex(backward);
}
