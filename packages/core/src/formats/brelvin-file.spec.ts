import { type BrelvinDocument, MESH_TYPE } from '@brelvin/contract';
import { strToU8, zipSync } from 'fflate';
import { InvalidDocument } from '../document/documents';
import { newMaterial, newRig, newSet } from '../document/new-documents';
import { BadBrelvinFile, readBrelvinFile, writeBrelvinFile } from './brelvin-file';

const material = newMaterial('Tallow seal');
const json = JSON.stringify(material);
const sha = 'ab'.repeat(32);

describe('Brelvin files', () => {
  it('keep a document with its images', () => {
    const bytes = Uint8Array.from([1, 2, 3, 250]);
    const file = writeBrelvinFile({ document: material, assets: new Map([[sha, { bytes, type: 'image/webp' }]]) });
    const read = readBrelvinFile(file);
    expect(read.document as object).toEqual(material);
    expect([...(read.assets.get(sha)?.bytes ?? [])]).toEqual([1, 2, 3, 250]);
    expect(read.assets.get(sha)?.type).toBe('image/webp');
    expect(writeBrelvinFile({ document: material })).toEqual(writeBrelvinFile({ document: material }));
  });

  it('keep a document with all that is seen with it: set, rig, meshes, environments, functions', () => {
    const beside = new Map<string, BrelvinDocument>([
      ['set-1', newSet('Sill')],
      ['rig-1', newRig('Dusk')],
    ]);
    const types = ['image/png', 'image/vnd.radiance', 'image/x-exr', MESH_TYPE];
    const assets = new Map(types.map((type, index) => [`${index}`.repeat(64), { bytes: Uint8Array.from([index]), type }]));
    const functions = new Map([['soft', 'float soft(float x) { return x; }']]);
    const read = readBrelvinFile(writeBrelvinFile({ document: material, beside, assets, functions }));
    expect([...read.beside.keys()].sort()).toEqual(['rig-1', 'set-1']);
    expect(read.beside.get('set-1') as object).toEqual(newSet('Sill'));
    expect([...read.assets.values()].map(({ type }) => type).sort()).toEqual([...types].sort());
    expect([...read.functions]).toEqual([...functions]);
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
