import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  afterNextRender,
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { debounceTime, Subject } from 'rxjs';
import { Icon } from '../icons/icon';
import { PickedPages } from './picked-pages';
import type { PickerEntry, PickerSource } from './picker-source';

const ROW = 44;
const MOST_ROWS = 7;
/** Milliseconds after the last key. */
const QUIET = 150;

let lists = 0;

/** Any number of entries to pick one of: searched by name or tag, with pictures, what was changed last first. */
@Component({
  selector: 'brelvin-picker-list',
  imports: [Icon, ScrollingModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './picker-list.css',
  host: { class: 'picker-list' },
  template: `
    <input
      #field
      class="text-input"
      role="combobox"
      aria-expanded="true"
      autocomplete="off"
      spellcheck="false"
      [attr.aria-controls]="id"
      [attr.aria-label]="'Search ' + source().words[1] + ' by name or tag'"
      [attr.aria-activedescendant]="count() > 0 ? id + '-' + index() : null"
      [placeholder]="'Search ' + source().words[1]"
      (input)="awaited.set(false); typed.next(field.value)"
      (keydown)="key($event)"
    />
    @if (pages().tags().length > 0) {
      <div class="picker-tags" role="group" aria-label="Tags">
        @for (each of pages().tags(); track each.tag) {
          <button type="button" class="choice-alone" [attr.aria-pressed]="pages().tag() === each.tag" (click)="narrow(each.tag)">
            {{ each.tag }} {{ each.count }}
          </button>
        }
      </div>
    }
    <div role="listbox" [id]="id" [attr.aria-label]="source().words[1]">
      <div #extras class="picker-extra" role="presentation">
        @for (entry of shownExtra(); track entry.id; let place = $index) {
          <div
            class="picker-entry"
            [class.picker-plain]="!entry.picture"
            role="option"
            [id]="id + '-' + place"
            [class.chosen]="place === index()"
            [attr.aria-selected]="place === index()"
            [attr.aria-current]="entry.id === current() ? 'true' : null"
            (pointermove)="hover($event, place)"
            (pointerdown)="$event.preventDefault(); chosen.emit(entry)"
          >
            @if (entry.picture; as picture) {
              <img [src]="picture" alt="" loading="lazy" decoding="async" />
            }
            <span class="picker-words" [title]="entry.name">
              <span class="picker-name">{{ entry.name }}</span>
              <span class="picker-hint">{{ entry.hint }}</span>
            </span>
          </div>
        }
      </div>
      <cdk-virtual-scroll-viewport class="picker-rows" role="presentation" [itemSize]="row" [style.height.px]="height()">
        <div
          *cdkVirtualFor="let at of pages().indices(); templateCacheSize: 0"
          class="picker-entry"
          role="option"
          [id]="id + '-' + (at + extraCount())"
          [class.chosen]="at + extraCount() === index()"
          [attr.aria-selected]="at + extraCount() === index()"
          [attr.aria-current]="pages().entry(at)?.id === current() ? 'true' : null"
          (pointermove)="hover($event, at + extraCount())"
          (pointerdown)="$event.preventDefault(); take(at + extraCount())"
        >
          @if (pages().entry(at); as entry) {
            @if (entry.picture; as picture) {
              <img [src]="picture" alt="" loading="lazy" decoding="async" />
            } @else if (entry.icon; as icon) {
              <span class="picker-blank"><brelvin-icon [name]="icon" /></span>
            } @else {
              <span class="picker-blank"></span>
            }
            <span class="picker-words" [title]="entry.name">
              <span class="picker-name">{{ entry.name }}</span>
              <span class="picker-hint">{{ entry.hint }}</span>
            </span>
          }
        </div>
      </cdk-virtual-scroll-viewport>
    </div>
    @if (pages().state() === 'away') {
      <p class="hint" role="alert">
        The {{ source().words[1] }} cannot be read at the moment.
        <button type="button" class="text-button" (click)="pages().again()">Try again</button>
      </p>
    } @else {
      <p class="hint" role="status">{{ said() }}</p>
    }
  `,
})
export class PickerList {
  readonly source = input.required<PickerSource>();
  /** Id of what is picked now. */
  readonly current = input<string>();
  /** What stands before all others as long as nothing is searched. */
  readonly extra = input<readonly PickerEntry[]>([]);
  readonly chosen = output<PickerEntry>();
  readonly closed = output<void>();

  protected readonly id = `picker-${++lists}`;
  protected readonly row = ROW;
  protected readonly typed = new Subject<string>();
  protected readonly pages = computed(() => {
    const source = this.source();
    return untracked(() => new PickedPages(source));
  });
  protected readonly shownExtra = computed(() => (this.pages().search() || this.pages().tag() ? [] : this.extra()));
  protected readonly extraCount = computed(() => this.shownExtra().length);
  protected readonly count = computed(() => this.extraCount() + this.pages().total());
  /** Of what Enter takes; the first one after each search. */
  protected readonly index = linkedSignal({
    source: () => this.pages().search() + (this.pages().tag() ?? ''),
    computation: () => 0,
  });
  protected readonly height = computed(() => Math.min(this.pages().total(), MOST_ROWS) * ROW);
  protected readonly said = computed(() => {
    const [one, many] = this.source().words;
    const total = this.pages().total();
    if (this.pages().state() === 'loading') return 'Looking …';
    if (total === 0) return this.pages().search() || this.pages().tag() ? `No ${one} matches.` : `No ${many} yet.`;
    return `${total.toLocaleString('en')} ${total === 1 ? one : many}`;
  });
  /** Enter was pressed before the answer had come. */
  protected readonly awaited = signal(false);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  private readonly extras = viewChild.required<ElementRef<HTMLElement>>('extras');
  private readonly viewport = viewChild(CdkVirtualScrollViewport);

  constructor() {
    this.typed.pipe(debounceTime(QUIET), takeUntilDestroyed()).subscribe((text) => {
      // Enter may have asked already.
      if (text !== this.pages().search()) this.pages().ask(text);
    });
    effect(() => {
      if (!this.awaited() || this.pages().state() === 'loading') return;
      untracked(() => {
        this.awaited.set(false);
        this.take(this.index());
      });
    });
    // Rows are counted by the height that the list has got.
    afterRenderEffect(() => {
      if (this.height() > 0) this.viewport()?.checkViewportSize();
    });
    afterNextRender(() => this.field().nativeElement.focus());
  }

  protected narrow(tag: string): void {
    const { pages } = this;
    pages().tag.set(pages().tag() === tag ? undefined : tag);
    pages().again();
  }

  /** A list that changes under a pointer that rests chooses nothing. */
  protected hover({ movementX, movementY }: PointerEvent, index: number): void {
    if (movementX !== 0 || movementY !== 0) this.index.set(index);
  }

  protected take(index: number): void {
    const entry = this.shownExtra()[index] ?? this.pages().entry(index - this.extraCount());
    if (entry) this.chosen.emit(entry);
  }

  protected key(event: KeyboardEvent): void {
    const page = { PageDown: MOST_ROWS, PageUp: -MOST_ROWS, ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (event.key === 'Escape') this.closed.emit();
    else if (event.key === 'Enter') this.takeWhenFound();
    else if (page !== undefined) this.step(page);
    else return event.stopPropagation();
    event.stopPropagation();
    event.preventDefault();
  }

  /** Enter is about what stands in the field, however quick the hand is: what is still being looked for is taken when it is found. */
  private takeWhenFound(): void {
    const text = this.field().nativeElement.value;
    if (text !== this.pages().search()) this.pages().ask(text);
    if (this.pages().state() === 'loading') this.awaited.set(true);
    else this.take(this.index());
  }

  private step(by: number): void {
    const next = Math.max(0, Math.min(this.index() + by, this.count() - 1));
    this.index.set(next);
    const row = next - this.extraCount();
    if (row < 0) this.extras().nativeElement.children[next]?.scrollIntoView({ block: 'nearest' });
    const view = this.viewport();
    if (!view || row < 0) return;
    const [top, bottom] = [view.measureScrollOffset(), view.measureScrollOffset() + view.getViewportSize()];
    if (row * ROW < top) view.scrollToOffset(row * ROW);
    else if ((row + 1) * ROW > bottom) view.scrollToOffset((row + 1) * ROW - view.getViewportSize());
  }
}
