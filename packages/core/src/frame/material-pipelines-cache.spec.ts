import type { Material } from '@brelvin/contract';
import { compileFor } from '../emit/emitted-material';
import { GLSL_TARGET } from '../emit/glsl/target';
import type { SurfaceVariant } from '../compile/surface-programs';
import { newMaterial } from '../document/new-documents';
import { RecordingDevice } from '../testing/recording-device';
import type { EmittedMaterial } from '../emit/emitted-material';
import { MaterialPipelinesCache } from './material-pipelines-cache';

const plain = newMaterial('plain');
const lit: Material = {
  ...plain,
  surface: {
    ...plain.surface,
    nodes: { lit: { kind: 'lambert', rev: 1, x: 0, y: 0, values: {} } },
    ribbons: { 'dock.colour': { from: 'lit', outlet: 'result' } },
  },
};

function compiled(material: Material, variants: readonly SurfaceVariant[] = []): EmittedMaterial {
  const { compiled: found, problems } = compileFor(GLSL_TARGET, material, undefined, { variants });
  expect(problems).toEqual([]);
  return found!;
}

describe('Surfaces of documents', () => {
  let device: RecordingDevice;
  let made: readonly string[];
  let bank: MaterialPipelinesCache;

  beforeEach(() => {
    device = new RecordingDevice();
    made = device.programs;
    bank = new MaterialPipelinesCache(device);
  });

  it('are brought onto the device once, whatever their numbers', async () => {
    const first = await bank.find('a', compiled(lit));
    const count = made.length;
    expect(count).toBeGreaterThan(0);
    const again = compiled(lit);
    expect(await bank.find('a', again)).toBe(first);
    expect(first.compiled).toBe(again);
    expect([made.length, device.programsGone]).toEqual([count, 0]);
  });

  it('are two where two documents have the same structure: each has its own numbers', async () => {
    expect(await bank.find('a', compiled(lit))).not.toBe(await bank.find('b', compiled(lit)));
  });

  it('learn programs that they are asked for later, and keep them', async () => {
    const surface = await bank.find('a', compiled(lit));
    expect(surface.has('shadowed')).toBeFalse();
    await bank.find('a', compiled(lit, ['shadowed']));
    const count = made.length;
    expect(surface.has('shadowed')).toBeTrue();
    await bank.find('a', compiled(lit));
    expect([surface.has('shadowed'), made.length]).toEqual([true, count]);
  });

  it('bring of the programs that draw them lit only what the light needs', async () => {
    const both = compiled(lit, ['shadowed']);
    const surface = await bank.find('a', both, ['shadowed']);
    expect(made.filter((label) => /plain|shadowed/.test(label)).length).toBe(1);
    expect(surface.pipelines('plain')).toBe(surface.pipelines('shadowed'));
    expect(surface.lacks(both, ['plain'])).toBeTrue();
    await bank.find('a', both, ['plain']);
    expect(surface.pipelines('plain')).not.toBe(surface.pipelines('shadowed'));
  });

  it('have a program that draws them lit, whatever they were compiled for', async () => {
    const surface = await bank.find('a', compiled(lit), ['occluded']);
    expect(surface.pipelines('occluded')).toBe(surface.pipelines('plain'));
    expect(surface.lacks(compiled(lit), ['occluded'])).toBeFalse();
  });

  it('link a program once that is asked for twice at the same time', async () => {
    const surface = await bank.find('a', compiled(lit));
    const count = made.length;
    await Promise.all([surface.learn(compiled(lit, ['shadowed'])), surface.learn(compiled(lit, ['shadowed']))]);
    expect(made.length).toBe(count + 1);
  });

  it('give back what comes after they went', async () => {
    const surface = await bank.find('a', compiled(lit));
    const late = surface.learn(compiled(lit, ['shadowed']));
    surface.destroy();
    await late;
    expect(device.programsGone).toBe(made.length);
  });

  it('make way for another structure of the same document', async () => {
    const first = await bank.find('a', compiled(lit));
    const count = made.length;
    expect(await bank.find('a', compiled(plain))).not.toBe(first);
    expect(device.programsGone).toBe(count);
  });

  it('go, the longest unused first', async () => {
    const [a, b] = [await bank.find('a', compiled(lit)), await bank.find('b', compiled(lit))];
    const one = made.length / 2;
    await bank.find('a', compiled(lit));
    bank.trim(1);
    expect(device.programsGone).toBe(one);
    expect(await bank.find('a', compiled(lit))).toBe(a);
    expect(await bank.find('b', compiled(lit))).not.toBe(b);
    bank.trim(0);
    expect(device.programsGone).toBe(made.length);
  });
});
