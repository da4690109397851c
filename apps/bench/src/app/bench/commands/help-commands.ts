import { inject, Injector } from '@angular/core';
import { BenchCommands } from './bench-commands';
import type { Command } from './command';

export function helpCommands(): readonly Command[] {
  const injector = inject(Injector);
  const showKeys = (): void => injector.get(BenchCommands).keysShown.set(true);
  return [{ id: 'keys', title: 'Show the keys', words: 'help shortcuts', keys: '?', help: 'this list', run: showKeys }];
}
