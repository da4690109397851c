/** The ending that the first bytes of a picture's file call for. */
export function endingOf([first, second]: Uint8Array): string {
  if (first === 0x23) return 'hdr';
  if (first === 0x76) return 'exr';
  if (first === 0x89) return 'png';
  return first === 0x52 && second === 0x49 ? 'webp' : 'jpg';
}
