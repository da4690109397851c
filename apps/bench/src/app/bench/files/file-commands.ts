import { inject } from '@angular/core';
import type { Command } from '../commands/command';
import { SendOut } from './send-out';

export function fileCommands(): readonly Command[] {
  const out = inject(SendOut);
  return [{ id: 'send-out', title: 'Export the material as a file', words: 'save send', run: () => void out.send() }];
}
