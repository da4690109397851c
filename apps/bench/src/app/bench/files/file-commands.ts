import { inject } from '@angular/core';
import type { Command } from '../commands/command';
import { SendOut } from './send-out';

export function fileCommands(): readonly Command[] {
  const out = inject(SendOut);
  return [{ id: 'send-out', title: 'Send the material out as a file', words: 'export save', run: () => void out.send() }];
}
