import { ElementRef, inject, linkedSignal, type Signal, type WritableSignal } from '@angular/core';

/**
 * Which entry of a searched list is chosen: the first one after each search; arrow keys move it and bring it into
 * sight. Entries are elements with the id `prefix` and their number. To be made where dependencies can be injected.
 */
export class ListChoice<T> {
  readonly index: WritableSignal<number>;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);

  constructor(
    private readonly prefix: string,
    query: Signal<string>,
    private readonly found: Signal<readonly T[]>,
  ) {
    this.index = linkedSignal({ source: query, computation: () => 0 });
  }

  get entry(): T | undefined {
    return this.found()[Math.min(this.index(), this.found().length - 1)];
  }

  /** Chooses what the pointer goes to. A list that changes under a pointer that rests chooses nothing. */
  hover({ movementX, movementY }: PointerEvent, index: number): void {
    if (movementX !== 0 || movementY !== 0) this.index.set(index);
  }

  /** Keys of the search field; they reach nothing else. */
  key(event: KeyboardEvent, { take, leave }: { readonly take: (entry: T) => void; readonly leave: () => void }): void {
    event.stopPropagation();
    const { entry } = this;
    if (event.key === 'ArrowDown') this.step(Math.max(0, Math.min(this.index() + 1, this.found().length - 1)));
    else if (event.key === 'ArrowUp') this.step(Math.max(this.index() - 1, 0));
    else if (event.key === 'Enter' && entry) take(entry);
    else if (event.key === 'Escape') leave();
    else return;
    event.preventDefault();
  }

  private step(index: number): void {
    this.index.set(index);
    this.host.nativeElement.querySelector(`#${this.prefix}${index}`)?.scrollIntoView({ block: 'nearest' });
  }
}
