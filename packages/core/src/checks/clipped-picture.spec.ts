import { newRig } from '../document/new-documents';
import { applyChanges } from '../document/transaction';
import type { CheckInput, Finding } from './check';
import { clippedPicture } from './clipped-picture';

function found(clipped: number | undefined, change: Partial<ReturnType<typeof newRig>> = {}): readonly Omit<Finding, 'check'>[] {
  return clippedPicture.find({ rig: { ...newRig('r'), ...change }, clipped } as CheckInput);
}

describe('A picture that is too bright', () => {
  it('is told of where more than a twentieth of it is cut off, with two ways out', () => {
    expect(found(undefined)).toEqual([]);
    expect(found(0.05)).toEqual([]);
    const [finding] = found(0.27);
    expect(finding?.title).toContain('27 %');
    const rig = newRig('r');
    expect(applyChanges(rig, finding!.mend!.edit.changes).curve).toBe('neutral');
    expect(applyChanges(rig, finding!.otherMend!.edit.changes).exposure).toBe(-1);
  });

  it('is not told of where a curve brings it back', () => {
    expect(found(0.5, { curve: 'aces' })).toEqual([]);
  });
});
