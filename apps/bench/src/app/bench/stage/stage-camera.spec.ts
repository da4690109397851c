import { StageCamera } from './stage-camera';

describe('StageCamera', () => {
  it('turns round at the speed that it is told, the other way round below 0, and stops at 0', () => {
    let moved = 0;
    const camera = new StageCamera(() => moved++);
    expect([camera.moves, camera.advance(1)]).toEqual([false, false]);
    const from = camera.now.azimuth;
    camera.setTurning(Math.PI / 6);
    expect([camera.moves, moved]).toEqual([true, 1]);
    for (let step = 0; step < 10; step++) camera.advance(0.1);
    const turned = camera.now.azimuth - from;
    expect(Math.abs(turned)).toBeCloseTo(Math.PI / 6, 6);
    camera.setTurning(-Math.PI / 6);
    for (let step = 0; step < 20; step++) camera.advance(0.1);
    expect(camera.now.azimuth - from).toBeCloseTo(-turned, 6);
    camera.setTurning(0);
    expect([camera.moves, camera.advance(1)]).toEqual([false, false]);
  });
});
