import { inject } from '@angular/core';
import type { Command } from '../commands/command';
import { BenchPlaces } from '../layout/bench-places';
import { WORKSPACES } from './workspace-entry';

export function workspaceCommands(): readonly Command[] {
  const places = inject(BenchPlaces);
  return inject(WORKSPACES).flatMap(({ id, command }): Command[] =>
    command ? [{ id: `tab-${id}`, ...command, run: () => places.workspace.set(id) }] : [],
  );
}
