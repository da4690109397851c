import { TestBed } from '@angular/core/testing';
import { AssetApi } from '../api/asset-api';
import { ImageShelf } from './image-shelf';

describe('The image shelf', () => {
  function shelfWith(send: jasmine.Spy): ImageShelf {
    TestBed.configureTestingModule({ providers: [{ provide: AssetApi, useValue: { send } }] });
    return TestBed.inject(ImageShelf);
  }

  /** A file that says it has this size; reading it would fail the test. */
  function fileOf(name: string, size: number): { file: File; read: jasmine.Spy } {
    const file = new File([], name, { type: 'image/png' });
    const read = jasmine.createSpy('read').and.rejectWith(new Error('was read'));
    Object.defineProperty(file, 'size', { value: size });
    Object.defineProperty(file, 'arrayBuffer', { value: read });
    return { file, read };
  }

  const refused: [what: string, size: number, words: RegExp][] = [
    ['a file of 2 GB', 2 * 1024 ** 3, /“tide\.png” was not taken\. It has 2048 MiB; at most 64 are taken\./],
    ['a file just above the limit', 64 * 1024 ** 2 + 1, /at most 64 are taken/],
    ['an empty file', 0, /“tide\.png” was not taken\. It is empty\./],
  ];
  for (const [what, size, words] of refused)
    it(`refuses ${what} by its size, before reading a byte of it`, async () => {
      const send = jasmine.createSpy('send');
      const shelf = shelfWith(send);
      const { file, read } = fileOf('tide.png', size);
      await expectAsync(shelf.take(file)).toBeRejectedWithError(words);
      expect(read).not.toHaveBeenCalled();
      expect(send).not.toHaveBeenCalled();
      expect(shelf.jobs()).toEqual([]);
    });

  it('leaves no job behind when a file that may be taken can not be read', async () => {
    const shelf = shelfWith(jasmine.createSpy('send'));
    const { file, read } = fileOf('tide.png', 64 * 1024 ** 2);
    const taking = shelf.take(file);
    expect(shelf.jobs().map(({ name, doing, share }) => ({ name, doing, share }))).toEqual([
      { name: 'tide.png', doing: 'reading', share: 0 },
    ]);
    await expectAsync(taking).toBeRejectedWithError('was read');
    expect(read).toHaveBeenCalledTimes(1);
    expect(shelf.jobs()).toEqual([]);
  });
});
