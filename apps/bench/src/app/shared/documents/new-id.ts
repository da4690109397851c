/** A fresh id: a letter, then 15 letters and digits from 80 random bits. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(10));
  let bits = 0n;
  for (const byte of bytes) bits = (bits << 8n) | BigInt(byte);
  return `a${bits.toString(36).padStart(16, '0')}`;
}
