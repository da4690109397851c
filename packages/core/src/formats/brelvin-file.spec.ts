import { strToU8, zipSync } from 'fflate';
import { InvalidDocument } from '../document/documents';
import { newMaterial } from '../document/new-documents';
import { BadBrelvinFile, readBrelvinFile, writeBrelvinFile } from './brelvin-file';

const material = newMaterial('Tallow seal');
const json = JSON.stringify(material);
const sha = 'ab'.repeat(32);

describe('Brelvin files', () => {
  it('keep a document with its images', () => {
    const bytes = Uint8Array.from([1, 2, 3, 250]);
    const file = writeBrelvinFile(material, new Map([[sha, { bytes, type: 'image/webp' }]]));
    const read = readBrelvinFile(file);
    expect(read.document as object).toEqual(material);
    expect([...(read.images.get(sha)?.bytes ?? [])]).toEqual([1, 2, 3, 250]);
    expect(read.images.get(sha)?.type).toBe('image/webp');
    expect(writeBrelvinFile(material, new Map())).toEqual(writeBrelvinFile(material, new Map()));
  });

  it('may be plain JSON', () => {
    expect(readBrelvinFile(strToU8(json)).document as object).toEqual(material);
  });

  const archive = (entries: Record<string, Uint8Array>): Uint8Array => zipSync(entries);
  const bad: readonly (readonly [string, Uint8Array, RegExp])[] = [
    [
      'a path that climbs out',
      archive({ 'document.json': strToU8(json), '../../etc/passwd': strToU8('x') }),
      /“\.\.\/\.\.\/etc\/passwd”.*Nothing was taken/,
    ],
    ['an absolute path', archive({ '/document.json': strToU8(json) }), /no place/],
    ['a path with a drive', archive({ 'C:\\document.json': strToU8(json) }), /no place/],
    ['something else', archive({ 'readme.txt': strToU8('hello') }), /no place/],
    ['no document', archive({ [`images/${sha}.png`]: strToU8('x') }), /no document.json/],
    ['a cut-off archive', archive({ 'document.json': strToU8(json) }).slice(0, 120), /damaged or cut off/],
    ['an archive of zeros that unpacks to too much', archive({ 'document.json': new Uint8Array(40 * 1024 * 1024) }), /more than is taken/],
  ];
  for (const [what, bytes, words] of bad) {
    it(`refuse ${what}`, () => expect(() => readBrelvinFile(bytes)).toThrowError(BadBrelvinFile, words));
  }

  it('say what is wrong with the document inside', () => {
    expect(() => readBrelvinFile(archive({ 'document.json': strToU8('{"format": "other"}') }))).toThrowError(
      InvalidDocument,
      /not a Brelvin document/,
    );
  });
});
