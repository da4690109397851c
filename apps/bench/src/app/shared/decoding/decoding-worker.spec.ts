import type { Remote } from 'comlink';
import { DecodingWorker } from './decoding-worker';

interface Numbers {
  double(value: number): number;
}

/** Speaks Comlink's words for one function that answers after a while. */
const SOURCE = `
  onmessage = ({ data: { id, argumentList } }) =>
    setTimeout(() => postMessage({ id, type: 'RAW', value: argumentList[0].value * 2 }), 50);
`;

describe('A worker that decodes', () => {
  let made: number;
  let worker: DecodingWorker<Numbers>;
  const double =
    (value: number) =>
    (remote: Remote<Numbers>): Promise<number> =>
      remote.double(value);

  beforeEach(() => {
    made = 0;
    const address = URL.createObjectURL(new Blob([SOURCE], { type: 'text/javascript' }));
    worker = new DecodingWorker<Numbers>(() => {
      made++;
      return new Worker(address);
    });
  });

  afterEach(() => worker.close());

  it('is made when it is first needed, and used again', async () => {
    expect(made).toBe(0);
    expect([await worker.run(double(2)), await worker.run(double(3))]).toEqual([4, 6]);
    expect(made).toBe(1);
  });

  it('is ended by a cancel; what else it was at is done by the next', async () => {
    const abort = new AbortController();
    const cancelled = worker.run(double(1), abort.signal);
    const others = [worker.run(double(2)), worker.run(double(3), new AbortController().signal)];
    abort.abort();
    await expectAsync(cancelled).toBeRejectedWith(jasmine.objectContaining({ name: 'AbortError' }));
    expect(await Promise.all(others)).toEqual([4, 6]);
    expect(made).toBe(2);
  });

  it('does nothing that was cancelled before, and nothing once it is closed', async () => {
    const abort = new AbortController();
    abort.abort();
    await expectAsync(worker.run(double(1), abort.signal)).toBeRejected();
    expect(made).toBe(0);
    const late = worker.run(double(1));
    worker.close();
    await expectAsync(late).toBeRejected();
    await expectAsync(worker.run(double(1))).toBeRejected();
    expect(made).toBe(1);
  });

  it('says what went wrong in the work itself', async () => {
    await expectAsync(worker.run(() => Promise.reject(new Error('damaged')))).toBeRejectedWithError('damaged');
    expect(await worker.run(double(4))).toBe(8);
  });
});
