import { TestBed } from '@angular/core/testing';
import { AssetApi, type Sending, type SentFile } from '../api/asset-api';
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
    ['a file of 2 GB', 2 * 1024 ** 3, /“tide\.png” was not imported\. It has 2048 MiB; at most 64 are taken\./],
    ['a file just above the limit', 64 * 1024 ** 2 + 1, /at most 64 are taken/],
    ['an empty file', 0, /“tide\.png” was not imported\. It is empty\./],
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

  it('says what is wrong with a file by its head, sends nothing of it, and leaves no job behind', async () => {
    const send = jasmine.createSpy('send');
    const shelf = shelfWith(send);
    const taking = shelf.take(new File(['not an image'], 'tide.png'));
    expect(shelf.jobs().map(({ name, doing, share }) => ({ name, doing, share }))).toEqual([
      { name: 'tide.png', doing: 'reading', share: 0 },
    ]);
    await expectAsync(taking).toBeRejectedWithError(/“tide\.png” was not imported\. It is no PNG/);
    expect(send).not.toHaveBeenCalled();
    expect(shelf.jobs()).toEqual([]);
  });

  it('sends a file while it is decoded', async () => {
    const sent: string[] = [];
    const shelf = shelfWith(
      jasmine.createSpy('send').and.callFake(async (_file: Blob, { sha256 = '' }: SentFile, { before }: Sending) => {
        sent.push('begun');
        await before;
        sent.push(`whole ${sha256.length}`);
      }),
    );
    const image = await shelf.take(new File([await png()], 'tide_roughness.png'));
    expect([image?.width, image?.height, image?.role]).toEqual([4, 4, 'data']);
    expect(sent).toEqual(['begun', 'whole 64']);
  });

  it('does not send to its end what cannot be decoded, and says so', async () => {
    let ended = '';
    const shelf = shelfWith(
      jasmine.createSpy('send').and.callFake(async (_file: Blob, _kept: SentFile, { before, signal }: Sending) => {
        await before?.catch(() => undefined);
        ended = signal.aborted ? 'broken off' : 'kept';
        signal.throwIfAborted();
      }),
    );
    const bytes = await (await png()).arrayBuffer();
    await expectAsync(shelf.take(new File([bytes.slice(0, bytes.byteLength - 30)], 'tide.png'))).toBeRejectedWithError(
      /“tide\.png” was not imported\. It cannot be decoded: the file is damaged or cut off\./,
    );
    expect(ended).toBe('broken off');
    expect(shelf.jobs()).toEqual([]);
  });

  async function png(): Promise<Blob> {
    const canvas = new OffscreenCanvas(4, 4);
    canvas.getContext('2d')?.fillRect(0, 0, 2, 4);
    return canvas.convertToBlob({ type: 'image/png' });
  }
});
