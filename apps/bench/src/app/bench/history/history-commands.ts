import { inject } from '@angular/core';
import type { Command } from '../commands/command';
import { Steps } from '../documents/steps';

export function historyCommands(): readonly Command[] {
  const steps = inject(Steps);
  return [
    { id: 'undo', title: 'Undo', words: 'take back', keys: 'Ctrl Z', run: () => steps.undo() },
    { id: 'redo', title: 'Redo', words: 'again', keys: 'Ctrl Shift Z', run: () => steps.redo() },
    { id: 'redo-y', title: 'Redo the last step', keys: 'Ctrl Y', run: () => steps.redo() },
  ];
}
