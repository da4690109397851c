import { inject } from '@angular/core';
import type { Command, PlaceKey } from '../commands/command';
import { BenchLayout } from '../layout/bench-layout';
import { StageBinding } from './stage-binding';

/** Keys of the Stage besides those of its commands. */
export const STAGE_KEYS: readonly PlaceKey[] = [
  { keys: 'F', help: 'on the Stage: frame the mesh' },
  { keys: 'arrows', help: 'on the Stage: orbit; + and − move closer and away' },
];

export function stageCommands(): readonly Command[] {
  const [link, layout] = [inject(StageBinding), inject(BenchLayout)];
  return [
    { id: 'frame', title: 'Frame the meshes', words: 'camera', run: () => link.engine()?.frameMesh() },
    { id: 'time', title: 'Stop or start the Stage’s clock', words: 'pause play', run: () => link.togglePlaying() },
    {
      id: 'alone',
      title: 'The picture alone',
      words: 'full window',
      keys: 'F9',
      help: 'the picture alone in the whole window, and back',
      run: () => layout.toggleAlone(),
    },
  ];
}
