import { DatePipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  ViewEncapsulation,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { AssetApi } from '../shared/api/asset-api';
import { DocumentApi } from '../shared/api/document-api';
import { TypedOnce } from '../shared/controls/typed-once';
import { Icon } from '../shared/icons/icon';
import { LibraryList } from './library-list';
import type { ShelfEntry } from './shelves';
import { ThumbnailMaker } from './thumbnail-maker';

/** One entry of a shelf: its picture, its name, its tags, and what can be done with it. */
@Component({
  selector: 'brelvin-entry-card',
  imports: [DatePipe, Icon, RouterLink, TypedOnce],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './entry-card.css',
  host: {
    class: 'library-card',
    role: 'group',
    '[attr.aria-label]': 'entry().name',
    '[attr.data-material]': "entry().kind === 'material' ? entry().id : null",
  },
  templateUrl: './entry-card.html',
})
export class EntryCard {
  readonly entry = input.required<ShelfEntry>();
  readonly deleted = input(false);
  readonly renamed = output<string>();
  readonly retagged = output<readonly string[]>();
  readonly duplicated = output<void>();
  readonly removed = output<void>();
  readonly restored = output<void>();
  /** Of a function or a field: it is to be read. */
  readonly opened = output<void>();

  private readonly api = inject(DocumentApi);
  private readonly assets = inject(AssetApi);
  private readonly thumbnails = inject(ThumbnailMaker);
  protected readonly picture = signal<string | undefined>(undefined);
  /** Names that are longer than the card are told whole. */
  protected readonly nameHint = computed(() => `${this.entry().name}\nPress to rename`);
  protected readonly naming = signal(false);
  protected readonly tagging = signal(false);

  constructor() {
    const list = inject(LibraryList);
    let open = false;
    const hold = (now: boolean): void => {
      if (now !== open) list.hold((open = now));
    };
    effect(() => {
      const now = this.naming() || this.tagging();
      untracked(() => hold(now));
    });
    inject(DestroyRef).onDestroy(() => hold(false));
    effect(() => {
      const { id, kind, step, pictured } = this.entry();
      if (kind === 'image') this.picture.set(this.assets.url(id));
      if (pictured !== null) this.picture.set(this.api.thumbnailUrl(id, pictured));
      if (kind !== 'material' && kind !== 'field') return;
      // One that nobody drew yet, or only of an earlier step.
      if (pictured !== step && !this.deleted()) untracked(() => void this.draw(id, step));
    });
  }

  protected rename(typed: string): void {
    const name = typed.trim();
    this.naming.set(false);
    if (name && name !== this.entry().name) this.renamed.emit(name);
  }

  protected retag(typed: string): void {
    this.tagging.set(false);
    const tags = [
      ...new Set(
        typed
          .split(',')
          .map((tag) => tag.trim().slice(0, 40))
          .filter(Boolean),
      ),
    ].slice(0, 32);
    if (tags.join() !== this.entry().tags.join()) this.retagged.emit(tags);
  }

  private async draw(id: string, step: number): Promise<void> {
    const url = await this.thumbnails.make(id, step).catch(() => undefined);
    if (url && this.entry().id === id) this.picture.set(url);
  }
}
