import { DestroyRef, inject, Injectable, InjectionToken, signal } from '@angular/core';
import { inText } from '../../shared/controls/in-text';
import { isKeys, type Command, type CommandSource, type PlaceKey } from './command';

/** What the Bench's commands and keys are made of; see `registered.ts`. */
export const COMMAND_SOURCES = new InjectionToken<readonly CommandSource[]>('sources of commands');
export const PLACE_KEYS = new InjectionToken<readonly PlaceKey[]>('keys of places');

const LIST_KEY = 'F4';

/** Everything that can be done on the Bench: for the list of commands, the keys, and the list of keys. */
@Injectable()
export class BenchCommands {
  readonly all: readonly Command[] = inject(COMMAND_SOURCES).flatMap((source) => source());
  /** Whether the list of commands, or that of keys, is open. */
  readonly listShown = signal(false);
  readonly keysShown = signal(false);

  /** All keys, those of places first. */
  readonly keys: readonly PlaceKey[] = [
    ...inject(PLACE_KEYS),
    ...this.all.flatMap(({ keys, help, title }) => (keys === undefined ? [] : [{ keys, help: help ?? inSentence(title) }])),
    { keys: LIST_KEY, help: 'all commands, to search and run' },
  ];

  constructor() {
    // Before the fields, which keep to themselves what is typed into them.
    const everywhere = (event: KeyboardEvent): void => this.pressEverywhere(event);
    document.addEventListener('keydown', everywhere, { capture: true });
    inject(DestroyRef).onDestroy(() => document.removeEventListener('keydown', everywhere, { capture: true }));
  }

  /** Does what a key stands for; fields of text keep theirs. */
  press(event: KeyboardEvent): void {
    if (inText(event)) return;
    const command = this.commandOf(event);
    if (!command || command.inText || command.unable?.()) return;
    event.preventDefault();
    command.run();
  }

  /** Keys that are heard wherever one is. */
  private pressEverywhere(event: KeyboardEvent): void {
    const run = event.key === LIST_KEY ? () => this.listShown.update((shown) => !shown) : this.runOf(this.commandOf(event));
    if (!run) return;
    event.preventDefault();
    event.stopPropagation();
    run();
  }

  private runOf(command: Command | undefined): (() => void) | undefined {
    return command?.inText ? command.run : undefined;
  }

  private commandOf(event: KeyboardEvent): Command | undefined {
    return this.all.find(({ keys }) => keys !== undefined && isKeys(event, keys));
  }
}

function inSentence(title: string): string {
  return title.charAt(0).toLowerCase() + title.slice(1);
}
