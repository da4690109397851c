import { strFromU8, strToU8, zipSync } from 'fflate';
import { ArchiveRefused, isArchive, unpackArchive } from './image-archive';

const images = (name: string): boolean => name.endsWith('.png');
const pack = (files: Record<string, Uint8Array>): Uint8Array => zipSync(files, { level: 9 });
/** Has an archive claim another size of all that is in it: in its central directory, which is what is believed. */
function claiming(archive: Uint8Array, size: number): Uint8Array {
  const view = new DataView(archive.buffer, archive.byteOffset);
  for (let at = 0; at + 28 <= archive.length; at++) if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, size, true);
  return archive;
}

describe('An archive of images', () => {
  it('gives what is wanted with its folders, and names what was left', () => {
    const archive = pack({
      'jar/color.png': strToU8('a'),
      'jar/readme.txt': strToU8('b'),
      '__MACOSX/jar/._color.png': strToU8('c'),
      '.x.png': strToU8('d'),
    });
    const { files, left } = unpackArchive(archive, images);
    expect(files.map(({ name, bytes }) => [name, strFromU8(bytes)])).toEqual([['jar/color.png', 'a']]);
    expect(left).toEqual(['jar/readme.txt']);
    expect(isArchive(archive)).toBeTrue();
    expect(isArchive(strToU8('PNG'))).toBeFalse();
  });

  for (const name of ['../color.png', 'a/../../color.png', '/etc/color.png', 'C:\\color.png', '..\\color.png'])
    it(`refuses the name ${name}`, () => {
      expect(() => unpackArchive(pack({ [name]: strToU8('a') }), images)).toThrowError(ArchiveRefused, /leads out of it/);
    });

  it('refuses a bomb before unpacking it: one file too large, or many that are so together', () => {
    const large = new Uint8Array(65 * 1024 * 1024);
    expect(() => unpackArchive(pack({ 'a.png': large }), images)).toThrowError(ArchiveRefused, /65 MiB/);
    const files = Object.fromEntries(Array.from({ length: 5 }, (_, index) => [`${index}.png`, strToU8('a')]));
    expect(() => unpackArchive(claiming(pack(files), 60 * 1024 * 1024), images)).toThrowError(ArchiveRefused, /unpacks to more/);
    const many = Object.fromEntries(Array.from({ length: 300 }, (_, index) => [`${index}.png`, strToU8('a')]));
    expect(() => unpackArchive(pack(many), images)).toThrowError(ArchiveRefused, /more than 256 files/);
  });

  it('never writes more than the directory claims', () => {
    const archive = claiming(pack({ 'a.png': new Uint8Array(1_000_000) }), 10);
    let size = 0;
    try {
      size = unpackArchive(archive, images).files[0]?.bytes.length ?? 0;
    } catch (error) {
      expect(error).toBeInstanceOf(ArchiveRefused);
    }
    expect(size).toBeLessThanOrEqual(10);
  });

  it('says that a cut archive is damaged', () => {
    const archive = pack({ 'a.png': strToU8('hello hello hello') });
    expect(() => unpackArchive(archive.subarray(0, archive.length - 30), images)).toThrowError(ArchiveRefused, /damaged or cut off/);
    expect(() => unpackArchive(new Uint8Array(0), images)).toThrowError(ArchiveRefused);
  });
});
