import { ComparedPictures } from '@brelvin/core';
import { framePrograms } from '../../core/src/frame/frame-programs';
import { FullScreen } from '../../core/src/frame/full-screen';
import { ProgramPipelines } from '../../core/src/frame/program-pipelines';
import { openDevice } from './testing/open-device';

type Own = FullScreen | ProgramPipelines;

/** All of the frame's own programs that something holds. */
function ownPrograms(held: unknown, found = new Set<Own>(), seen = new Set<unknown>()): Set<Own> {
  if (typeof held !== 'object' || held === null || seen.has(held) || 'runPass' in held) return found;
  seen.add(held);
  if (held instanceof FullScreen || held instanceof ProgramPipelines) found.add(held);
  else for (const each of Object.values(held)) ownPrograms(each, found, seen);
  return found;
}

describe('The frame’s own programs', () => {
  it('are all taken by the driver, whether a picture needs them or not', async () => {
    const device = await openDevice(1);
    const link = spyOn(device, 'createOwnProgram').and.callThrough();
    const all = [...ownPrograms([framePrograms(device), new ComparedPictures(device)])];
    expect(link).not.toHaveBeenCalled();
    for (const own of all) expect(() => (own as unknown as { readonly program: unknown }).program).not.toThrow();
    await expectAsync(device.finished()).toBeResolved();
    expect(link).toHaveBeenCalledTimes(all.length);
    const labels = link.calls.allArgs().map(([{ label }]) => label);
    expect(new Set(labels).size).toBe(labels.length);
    expect(labels).toContain('shadow');
    expect(labels).toContain('near_smooth');
    expect(labels.length).toBeGreaterThan(20);
    device.destroy();
  });
});
