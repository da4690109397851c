/** The SHA-256 of bytes as 64 hexadecimal digits. Of large files it is worked out in a worker: it copies them first. */
export async function sha256Of(bytes: BufferSource): Promise<string> {
  const digest = await digestOf(bytes);
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

async function digestOf(bytes: BufferSource): Promise<Uint8Array> {
  // Browsers hash for pages from this machine or over https only; for others there is a slower way.
  const { subtle } = crypto as Partial<Crypto>;
  if (subtle) return new Uint8Array(await subtle.digest('SHA-256', bytes));
  const { sha256 } = await import('@noble/hashes/sha2.js');
  return sha256(bytes instanceof ArrayBuffer ? new Uint8Array(bytes) : new Uint8Array(bytes.buffer, bytes.byteOffset, bytes.byteLength));
}
