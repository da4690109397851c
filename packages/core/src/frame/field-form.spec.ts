import { FIRST_FIELD } from '../field/read-field';
import { fieldSource } from '../mesh/field-source';
import { RecordingDevice } from '../testing/recording-device';
import { FieldForm } from './field-form';
import { MeshBuffers } from './mesh-buffers';

describe('A form that is traced', () => {
  const device = new RecordingDevice();
  const source = fieldSource(FIRST_FIELD, {});
  const form = new FieldForm(device, source, (box) => new MeshBuffers(device, box));

  it('has its regions as parts, all over one box, drawn in to where it stands', () => {
    expect(form.parts.map(({ name, first, count }) => [name, first, count])).toEqual([
      ['Float', 0, 36],
      ['Collar', 0, 36],
    ]);
    expect(Math.max(...form.bounds.high)).toBeLessThan(1.6);
    expect(
      form.points(Float32Array.of(1, 0, 0, 5, 0, 1, 0, 0, 0, 0, 1, 0, 0)).every((each, index) => index % 3 > 0 || each > 3),
    ).toBeTrue();
  });

  it('is met by a ray at one of them, and marched once for all', () => {
    const ray = { origin: [0, 0.25, 5], direction: [0, 0, -1] };
    const asked = spyOn(source.sampler, 'at').and.callThrough();
    const [float, collar] = form.parts.map((part) => form.pick(part, ray));
    expect(float).toBeUndefined();
    expect(collar).toBeCloseTo(5 - 0.79, 2);
    const once = asked.calls.count();
    form.parts.forEach((part) => form.pick(part, ray));
    expect(asked.calls.count()).toBe(once);
    expect(form.pick(form.parts[0]!, { origin: [0, 0, 5], direction: [0, 0, -1] })).toBeCloseTo(4.3, 2);
    expect(asked.calls.count()).toBeGreaterThan(once);
  });

  it('tells how it is traced, and gives back what it has on the device', () => {
    const [steps, epsilon, slope, number] = form.numbers(3);
    expect([steps, epsilon, number]).toEqual([192, 0.1, 3]);
    // Where body and collar lie side by side their joint is steeper than a distance.
    expect(slope).toBeLessThanOrEqual(1);
    expect(slope).toBeGreaterThan(0.7);
    const before = device.alive;
    form.destroy();
    expect(device.alive).toBeLessThan(before);
  });
});
