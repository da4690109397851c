/** The SHA-256 of bytes as 64 hexadecimal digits. Of large files it is worked out in a worker: it copies them first. */
export async function sha256Of(bytes: BufferSource): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
