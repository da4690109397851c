import type { StageClocks } from '@brelvin/core';
import { BehaviorSubject } from 'rxjs';

/** The two clocks of the Stage: materials and meshes go by one, lights by the other. Each can stand. */
export class RunningClocks {
  private seconds = 0;
  playing = true;
  lightsPlaying = true;
  /** The lights' own clock, seconds. */
  readonly lights = new BehaviorSubject(0);

  get now(): StageClocks {
    return { seconds: this.seconds, lightSeconds: this.lights.value };
  }

  /** @returns whether the clock of something that moves has run */
  advance(elapsed: number, moves: { readonly meshes: boolean; readonly lights: boolean }): boolean {
    const [runs, lightsRun] = [this.playing && moves.meshes, this.lightsPlaying && moves.lights];
    if (runs) this.seconds += elapsed;
    if (lightsRun) this.lights.next(this.lights.value + elapsed);
    return runs || lightsRun;
  }
}
