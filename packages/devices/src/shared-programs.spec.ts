import { SharedPrograms } from './shared-programs';

describe('Shared programs', () => {
  it('are made once for all who use them, and dropped when the last one gives them back', async () => {
    const dropped: string[] = [];
    const shared = new SharedPrograms<string>((each) => dropped.push(each));
    const make = jasmine.createSpy('make').and.callFake(async () => 'one');
    const [first, second] = await Promise.all([shared.take('a', make), shared.take('a', make)]);
    expect([first.made, second.made, make.calls.count(), shared.count]).toEqual(['one', 'one', 1, 1]);
    first.release();
    await Promise.resolve();
    expect(dropped).toEqual([]);
    second.release();
    await Promise.resolve();
    expect(dropped).toEqual(['one']);
    await shared.take('a', make);
    expect(make).toHaveBeenCalledTimes(2);
  });

  it('are tried again after they were refused', async () => {
    const shared = new SharedPrograms<string>();
    await expectAsync(shared.take('a', () => Promise.reject(new Error('no')))).toBeRejectedWithError('no');
    expect((await shared.take('a', async () => 'yes')).made).toBe('yes');
  });
});
