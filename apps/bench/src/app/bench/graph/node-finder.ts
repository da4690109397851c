import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import type { RibbonType } from '@brelvin/contract';
import { fittingInlet, fittingOutlet, GROUP_KIND, likeliness, linearFromHex, searchKinds, type NodeKind } from '@brelvin/core';
import { ListChoice } from '../../shared/controls/list-choice';
import { BenchContext } from '../editors/bench-context';
import type { ReadyGroup } from '../editors/graph-editor';

/** A ribbon in the void that wants a node at its free end. */
export interface LooseRibbon {
  readonly free: 'inlet' | 'outlet';
  readonly type: RibbonType;
}
/** A node in whose place another kind is to stand. */
export interface SwappedNode {
  readonly id: string;
  readonly kind?: NodeKind;
  /** How many ribbons a kind would let go. */
  readonly lostBy: (kind: NodeKind) => number;
}
export interface FoundKind {
  readonly kind: NodeKind;
  /** Where the loose ribbon goes. */
  readonly port?: string;
  /** For a group. */
  readonly ready?: ReadyGroup;
  /** Ribbons that are let go where it takes another node's place. */
  readonly lost?: number;
}

/** How much two kinds are alike: by their family, then by inlets of one name. */
function likenessOf(kind: NodeKind, other: NodeKind | undefined): number {
  const names = new Set(other?.inlets.map(({ name }) => name));
  const shared = kind.inlets.filter(({ name }) => names.has(name)).length;
  return kind.family === other?.family ? 1000 + shared : shared;
}

/** Finds a kind of node by typing; from a ribbon, only those that fit. */
@Component({
  selector: 'brelvin-node-finder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './node-finder.css',
  host: { class: 'finder popover', role: 'dialog', 'aria-label': 'Find a node' },
  template: `
    <input
      #field
      class="text-input"
      role="combobox"
      aria-expanded="true"
      aria-controls="finder-list"
      [attr.aria-activedescendant]="found().length > 0 ? 'finder-' + choice.index() : null"
      [attr.aria-label]="loose() ? 'Find a node that fits the ribbon' : 'Find a node'"
      placeholder="bands, noise, 0.5, #ff8800 …"
      spellcheck="false"
      autocomplete="off"
      [value]="query()"
      (input)="query.set(field.value)"
      (keydown)="key($event)"
    />
    <ul id="finder-list" class="finder-list" role="listbox" aria-label="Nodes">
      @for (entry of found(); track entry.ready?.group ?? entry.kind.id; let index = $index) {
        <li
          [id]="'finder-' + index"
          class="finder-entry"
          role="option"
          [class.chosen]="index === choice.index()"
          [attr.aria-selected]="index === choice.index()"
          (pointermove)="choice.hover($event, index)"
          (pointerdown)="$event.preventDefault(); chosen.emit(entry)"
        >
          <span>{{ entry.kind.title }}{{ entry.ready?.values ? ' ' + query().trim() : '' }}</span>
          <span class="finder-family">{{ entry.lost ? ribbons(entry.lost) : entry.kind.family }}</span>
        </li>
      } @empty {
        <li class="hint px-2 py-1">
          {{
            loose()
              ? 'No node that fits this ribbon matches. Try another word.'
              : 'Nothing matches. Try what it does: “soft edge”, “steps”, “shiny”.'
          }}
        </li>
      }
    </ul>
    @if (choice.entry; as entry) {
      <p class="hint finder-help">{{ entry.kind.help }}</p>
    }
  `,
})
export class NodeFinder {
  readonly start = input('');
  readonly loose = input<LooseRibbon>();
  /** Groups that may stand here. */
  readonly groups = input<readonly (ReadyGroup & { readonly kind: NodeKind })[]>([]);
  /** What lets go of none of its ribbons comes first; before anything is typed, kinds like it before others: of its family, with its inlets. */
  readonly swap = input<SwappedNode>();
  readonly chosen = output<FoundKind>();
  readonly closed = output<void>();

  private readonly context = inject(BenchContext);
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  protected readonly query = linkedSignal(() => this.start());

  protected readonly found = computed((): FoundKind[] => {
    const groups = new Map(this.groups().map(({ kind, ...ready }) => [kind, ready]));
    const all = [...this.context.catalogue.kinds.values()].filter((kind) => kind.id !== GROUP_KIND);
    const typed = this.typedValue();
    const kinds = [...(typed ? [typed.kind] : []), ...searchKinds([...all, ...groups.keys()], this.query())].filter(
      (kind, index, list) => list.indexOf(kind) === index,
    );
    const [loose, swap] = [this.loose(), this.swap()];
    if (swap) {
      const likeness = (kind: NodeKind): number => (this.query() ? 0 : likenessOf(kind, swap.kind));
      return kinds
        .filter((kind) => kind !== swap.kind)
        .map((kind) => ({ kind, lost: swap.lostBy(kind) }))
        .sort((a, b) => a.lost - b.lost || likeness(b.kind) - likeness(a.kind));
    }
    const found = (kind: NodeKind): FoundKind => ({ kind, ready: kind === typed?.kind ? typed.ready : groups.get(kind) });
    if (!loose) return kinds.map(found);
    const fitting = kinds.flatMap((kind) => {
      const fit = loose.free === 'inlet' ? fittingInlet(kind, loose.type) : fittingOutlet(kind, loose.type);
      return fit ? [{ ...found(kind), port: fit.name, cost: fit.cost - likeliness(kind.id, loose.type, loose.free) }] : [];
    });
    return this.query() ? fitting : fitting.sort((a, b) => a.cost - b.cost);
  });
  /** A number or a colour that is typed is a node with that value. */
  private readonly typedValue = computed((): { readonly kind: NodeKind; readonly ready: ReadyGroup } | undefined => {
    const text = this.query().trim();
    const value = /^-?\d*\.?\d+$/.test(text) ? Number(text) : text.startsWith('#') ? linearFromHex(text) : undefined;
    const kind = value === undefined ? undefined : this.context.kind(typeof value === 'number' ? 'number' : 'colour');
    return kind && value !== undefined ? { kind, ready: { values: { value } } } : undefined;
  });
  protected readonly choice = new ListChoice('finder-', this.query, this.found);

  constructor() {
    afterNextRender(() => {
      const field = this.field().nativeElement;
      field.focus();
      field.setSelectionRange(field.value.length, field.value.length);
    });
  }

  protected ribbons(count: number): string {
    return count === 1 ? '1 ribbon goes' : `${count} ribbons go`;
  }

  protected key(event: KeyboardEvent): void {
    this.choice.key(event, { take: (entry) => this.chosen.emit(entry), leave: () => this.closed.emit() });
  }
}
