import { ChangeDetectionStrategy, Component, computed, inject, input, ViewEncapsulation } from '@angular/core';
import type { RibbonType } from '@brelvin/contract';
import { hexFromLinear } from '@brelvin/core';
import { outletPoint, outletRows } from '../editors/card-layout';
import { GraphEditor } from '../editors/graph-editor';
import { wordsWidth } from '../editors/words-width';
import { outletKey } from '../stage/outlet-lens';
import { OutletInspector } from './outlet-inspector';
import { Probes } from './probes';
import { valueWords } from './value-words';
import { valuesSide, type ValuesSide } from './values-side';

/** Of a line of values, graph units: its height, and what stands round its words. */
const LINE = 17;
const REST = 32;
/** What an outlet's row needs beside its label. */
const ROW_REST = 50;

/** What an outlet gives at the points that are probed: on the ribbons that leave it. */
@Component({
  selector: 'brelvin-card-values',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './card-values.css',
  host: { class: 'card-values', '[attr.data-side]': 'side()' },
  template: `
    @for (line of lines(); track line.number) {
      <span class="card-value" [class.card-value-old]="line.hidden" [attr.data-pin]="line.number">
        @if (line.number > 0 && several()) {
          <span class="pin-number">{{ line.number }}</span>
        }
        @if (line.colour) {
          <span class="outlet-swatch" [style.background-color]="line.colour"></span>
        }
        {{ line.words }}
      </span>
    }
  `,
})
export class CardValues {
  readonly node = input.required<string>();
  readonly outlet = input.required<string>();
  readonly type = input.required<RibbonType>();

  private readonly editor = inject(GraphEditor);
  private readonly outlets = inject(OutletInspector);
  private readonly probes = inject(Probes);
  protected readonly several = computed(() => this.probes.points().length > 1);

  protected readonly lines = computed(() => {
    if (!this.outlets.probing()) return [];
    const key = outletKey(this.outlets.addressOf({ node: this.node(), outlet: this.outlet() }));
    const type = this.type();
    return this.probes.points().flatMap(({ number, values, hidden }) => {
      const value = values.get(key);
      if (!value) return [];
      const isColour = type === 'colour' || type === 'light';
      return [{ number, hidden, words: valueWords(value, type), colour: isColour ? hexFromLinear(value.slice(0, 3)) : undefined }];
    });
  });

  /** Where they cover neither a title nor a number. */
  protected readonly side = computed((): ValuesSide => {
    const { cards, of } = this.editor.placed();
    const card = cards.get(this.node());
    const lines = this.lines();
    if (!card?.kind || lines.length === 0) return 'beside';
    const inRow = outletRows(card.kind) > 0;
    const widths = lines.map((line) => wordsWidth(line.words) + REST);
    const size = inRow
      ? { width: widths.reduce((sum, width) => sum + width, 0), height: LINE }
      : { width: Math.max(...widths), height: lines.length * LINE };
    const others = [...cards.values()].flatMap((each) => (each === card ? [] : [each.box]));
    const label = card.kind.outlets.find(({ name }) => name === this.outlet())?.label ?? '';
    const room = inRow ? card.box.width - wordsWidth(label) - ROW_REST : undefined;
    return valuesSide(card.box, outletPoint(card.node, card.kind, this.outlet(), of.title(card.id)).y, size, others, room);
  });
}
