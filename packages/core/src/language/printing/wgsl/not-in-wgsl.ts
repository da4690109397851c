/** Something that WGSL has no way to write. */
export class NotInWgsl extends Error {
  /** @param what in words, as the subject of a sentence */
  constructor(readonly what: string) {
    super(`WGSL has no way to write this: ${what}.`);
  }
}
