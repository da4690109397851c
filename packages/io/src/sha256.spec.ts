import { sha256Of } from './sha256';

describe('sha256Of', () => {
  const text = new TextEncoder().encode('abc');
  /** FIPS 180-4, example of one block. */
  const wanted = 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad';

  it('hashes buffers and parts of them', async () => {
    expect(await sha256Of(text)).toBe(wanted);
    expect(await sha256Of(new TextEncoder().encode('xabcx').subarray(1, 4))).toBe(wanted);
    expect(await sha256Of(text.buffer)).toBe(wanted);
  });

  it('hashes also where the browser does not: over plain http on a network', async () => {
    spyOnProperty(crypto, 'subtle').and.returnValue(undefined as unknown as SubtleCrypto);
    expect(await sha256Of(text)).toBe(wanted);
    expect(await sha256Of(new TextEncoder().encode('xabcx').subarray(1, 4))).toBe(wanted);
    expect(await sha256Of(text.buffer)).toBe(wanted);
  });
});
