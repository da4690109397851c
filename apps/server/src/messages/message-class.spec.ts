import { anyDocument, ASSET_ADDRESS, DOCUMENT_QUERY, FUNCTION_ADDRESS, HISTORY_QUERY, NEW_DOCUMENT } from '@brelvin/contract';
import type { BadMessage } from './bad-message';
import { messageClass } from './message-class';
import { readMessage } from './read-message';

describe('readMessage', () => {
  const faults = (reading: Promise<unknown>): Promise<string> =>
    reading.then(
      () => 'read',
      (error: unknown) => (error as BadMessage).message,
    );

  it('makes numbers and switches of text, and puts in what was left out', async () => {
    const query = await readMessage(DOCUMENT_QUERY, { kind: 'rig', limit: '20', deleted: 'true', search: 'north' });
    expect({ ...query }).toEqual({ kind: 'rig', limit: 20, offset: 0, deleted: true, search: 'north' });
    expect({ ...(await readMessage(HISTORY_QUERY, {})) }).toEqual({ limit: 200 });
  });

  it('names each field at fault, in words', async () => {
    const wrong = { kind: 'poem', limit: '5000', offset: 'far', deleted: 'perhaps', extra: '1', search: 'x'.repeat(200) };
    const said = await faults(readMessage(DOCUMENT_QUERY, wrong));
    for (const words of [
      'kind: must be one of material, set, function, field, rig',
      'limit: must not be greater than 200',
      'offset: must be an integer number',
      'deleted: must be true or false',
      'extra: is not known here',
      'search: must be shorter than or equal to 120 characters',
    ])
      expect(said).toContain(words);
    expect(await faults(readMessage(ASSET_ADDRESS, { sha256: 'short' }))).toBe('sha256: must be a SHA-256 in hexadecimal');
    expect(await faults(readMessage(FUNCTION_ADDRESS, { name: '4you' }))).toContain('as in shading code');
  });

  it('reads what is short only: a document comes as a body', () => {
    expect(anyDocument.kind).toBe('any');
    expect(() => messageClass(NEW_DOCUMENT)).toThrowError(/document: neither addresses nor queries can hold this/);
    expect(messageClass(DOCUMENT_QUERY)).toBe(messageClass(DOCUMENT_QUERY));
  });
});
