import type { EmittedMaterial } from '../emit/emitted-material';
import { buildMesh } from '../mesh/build-mesh';
import { START_CAMERA } from '../scene/camera';
import { RecordingDevice } from '../testing/recording-device';
import type { FrameItem } from './frame-item';
import { layersOf } from './layers';
import { MeshBuffers } from './mesh-buffers';
import type { MaterialPipelines } from './material-pipelines';

describe('Layers', () => {
  const device = new RecordingDevice();
  const ball = new MeshBuffers(device, buildMesh({ shape: 'sphere', numbers: { segments: 8, rings: 4 }, smooth: true }));
  const sheet = new MeshBuffers(device, buildMesh({ shape: 'plane', numbers: {}, smooth: true }));
  const camera = { ...START_CAMERA, azimuth: 0, elevation: 0 };

  type Facts = Partial<Pick<EmittedMaterial, 'opacity' | 'readsSceneColour' | 'transmits'>>;
  const item = (z: number, facts: Facts, mesh = ball, cull: 'back' | 'none' = 'back'): FrameItem => ({
    mesh,
    surface: { compiled: { readsSceneColour: facts.transmits ?? false, transmits: false, ...facts } } as unknown as MaterialPipelines,
    part: { first: 0, count: 3, object: mesh.object, instances: mesh.inPlace, instanceCount: 1, cull, mirrored: false, middle: [0, 0, z] },
  });
  const told = (items: readonly FrameItem[]): string[] =>
    layersOf(items, camera).map(({ item: { part }, looksAnew }) => `${part?.middle?.[2]} ${part?.cull}${looksAnew ? ' anew' : ''}`);

  it('draw glass from the farthest on, its back before its front, each seeing what is behind it', () => {
    expect(told([item(1, { transmits: true }), item(-1, { transmits: true })])).toEqual([
      '-1 front anew',
      '-1 back anew',
      '1 front anew',
      '1 back anew',
    ]);
  });

  it('let the nearest two see each other, and those behind them what hides', () => {
    expect(told([0, 1, 2, 3].map((z) => item(z, { transmits: true })))).toEqual([
      '0 front anew',
      '0 back',
      '1 front',
      '1 back',
      '2 front anew',
      '2 back anew',
      '3 front anew',
      '3 back anew',
    ]);
  });

  it('draw what is laid over after all glass, and both sides of its sheets', () => {
    const over = item(-3, { opacity: 'blend' }, sheet, 'none');
    expect(told([over, item(2, { transmits: true })])).toEqual(['2 front anew', '2 back anew', '-3 front', '-3 back']);
  });

  it('look once for what is laid over, however much of it looks', () => {
    const looking = (z: number): FrameItem => item(z, { opacity: 'add', readsSceneColour: true });
    expect(told([looking(0), looking(1), item(-1, { opacity: 'blend' })])).toEqual(['-1 back', '0 back anew', '1 back']);
  });

  it('leave out what is laid over in no order, and draw one side of what only looks behind itself', () => {
    expect(told([item(0, { opacity: 'unsorted' }), item(1, { readsSceneColour: true })])).toEqual(['1 back anew']);
  });
});
