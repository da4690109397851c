import { NgTemplateOutlet } from '@angular/common';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import type { GraphNode, InletValue, RibbonType } from '@brelvin/contract';
import {
  featuredKind,
  hasCurve,
  inletKey,
  setParameter,
  titleGroup,
  titleOfNode,
  type FeatureSpec,
  type InletSpec,
  type Meaning,
  type NodeKind,
  type Rate,
} from '@brelvin/core';
import { Icon } from '../../shared/icons/icon';
import { BenchContext } from '../editors/bench-context';
import { cardHeight, cardWidth, controlWidth, featureColumns, NARROWEST_CARD } from '../editors/card-layout';
import { CostWatch } from '../cost/cost-watch';
import { costWords, counted } from '../cost/cost-words';
import { CardPreview } from '../looking/card-preview';
import { CardValues } from '../looking/card-values';
import { OutletInspector } from '../looking/outlet-inspector';
import { outletKey } from '../stage/outlet-lens';
import { ValueControl } from '../values/value-control';
import { specOfFactor, specOfInlet, specOfParameter, type ValueSpec } from '../values/value-spec';
import { CardCurve } from './card-curve';
import { GraphEditor } from '../editors/graph-editor';
import { Port } from './port';

interface InletRow {
  readonly spec: InletSpec;
  readonly type: RibbonType;
  readonly connected: boolean;
  readonly hasPort: boolean;
  /** The control of its own value, where nothing runs into it and it has one. */
  readonly open?: ValueSpec;
  /** The control of what a map is multiplied by. */
  readonly factor?: { readonly spec: ValueSpec; readonly value: InletValue };
  /** Of its control, CSS pixels. */
  readonly width: number;
  readonly value: readonly number[];
}

const RATE_TICKS: Readonly<Record<Rate, { readonly ticks: number; readonly words: string }>> = {
  constant: { ticks: 1, words: 'Constant: computed when a number changes' },
  frame: { ticks: 2, words: 'Computed once per frame' },
  vertex: { ticks: 3, words: 'Computed per vertex' },
  pixel: { ticks: 4, words: 'Computed for every pixel' },
};

/** One node: its title, its inlets with their values, its outlets, and how often it is computed. */
@Component({
  selector: 'brelvin-node-card',
  imports: [CardCurve, CardPreview, CardValues, Icon, NgTemplateOutlet, Port, ValueControl],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './node-card.css',
  host: {
    class: 'card',
    role: 'group',
    tabindex: '0',
    '[class.card-selected]': 'selected()',
    '[class.card-wrong]': 'problem()',
    '[class.card-unused]': 'unused()',
    '[class.card-group]': "node().kind === 'group'",
    '[attr.data-card]': 'id()',
    '[attr.data-kind]': 'node().kind',
    '[attr.aria-label]': 'title() + (selected() ? ", selected" : "")',
    '[style.width.px]': 'width()',
    '[style.--card-height.px]': 'height()',
    '[style.left.px]': 'node().x',
    '[style.top.px]': 'node().y',
  },
  template: `
    <ng-template #outletPort let-outlet>
      <button
        brelvin-port
        side="outlet"
        [node]="id()"
        [name]="outlet.name"
        [label]="outlet.label"
        [type]="outletType(outlet.name)"
        [help]="outlet.help"
      ></button>
      @if (outlets.probing()) {
        <brelvin-card-values [node]="id()" [outlet]="outlet.name" [type]="outletType(outlet.name)" />
      }
    </ng-template>
    <ng-template #peekButton let-outlet>
      @if (canPeek(outlet.name)) {
        <button
          type="button"
          class="card-peek"
          tabindex="-1"
          [class.card-peek-on]="isPeeked(outlet.name)"
          [attr.aria-pressed]="isPeeked(outlet.name)"
          [attr.aria-label]="'Peek at ' + outlet.label"
          title="Peek: see this value on the mesh instead of the picture (F6)"
          (pointerdown)="$event.stopPropagation()"
          (click)="outlets.togglePeek(id(), outlet.name)"
        >
          <brelvin-icon name="eye" />
        </button>
      }
    </ng-template>
    @if (cost(); as spent) {
      <span class="card-cost" [title]="spent.help">{{ spent.words }}</span>
    }
    <header class="card-title" [class.card-title-tall]="node().preview" [title]="kind()?.help ?? ''">
      @if (node().preview) {
        <brelvin-card-preview [node]="id()" />
      }
      @if (naming()) {
        <input
          #name
          class="text-input card-naming"
          aria-label="Name of the node"
          maxlength="120"
          [value]="title()"
          (pointerdown)="$event.stopPropagation()"
          (keydown)="nameKey($event)"
          (blur)="finishNaming()"
        />
      } @else {
        <span class="card-name" [title]="title()">{{ title() }}</span>
      }
      @if (problem(); as words) {
        <span class="card-problem" [title]="words"><brelvin-icon name="warning" /></span>
      }
      @if (kind(); as known) {
        @if (known.outlets.length === 1) {
          @for (outlet of known.outlets; track outlet.name) {
            @if (swatch(); as colour) {
              <span class="outlet-swatch" [style.background-color]="colour"></span>
            }
            <ng-container [ngTemplateOutlet]="peekButton" [ngTemplateOutletContext]="{ $implicit: outlet }" />
            <ng-container [ngTemplateOutlet]="outletPort" [ngTemplateOutletContext]="{ $implicit: outlet }" />
          }
        }
      }
    </header>
    @if (kind(); as known) {
      @if (known.outlets.length > 1) {
        @for (outlet of known.outlets; track outlet.name) {
          <div class="card-row card-outlet">
            <ng-container [ngTemplateOutlet]="peekButton" [ngTemplateOutletContext]="{ $implicit: outlet }" />
            <span class="card-label">{{ outlet.label }}</span>
            <ng-container [ngTemplateOutlet]="outletPort" [ngTemplateOutletContext]="{ $implicit: outlet }" />
          </div>
        }
      }
    }
    @if (parameter(); as found) {
      <div class="card-row">
        <span class="card-label">Value</span>
        <brelvin-value
          [narrow]="true"
          [spec]="found.spec"
          [value]="found.value"
          (changed)="parameterChanged($event.value, $event.gesture)"
        />
      </div>
    }
    @for (row of rows(); track row.spec.name) {
      <div class="card-row" [title]="row.spec.help" [style.--control.px]="row.width">
        @if (row.hasPort) {
          <button
            brelvin-port
            side="inlet"
            [node]="id()"
            [name]="row.spec.name"
            [label]="row.spec.label"
            [type]="row.type"
            [connected]="row.connected"
            [help]="row.spec.help"
          ></button>
        }
        <span class="card-label">{{ row.spec.label }}</span>
        @if (row.open; as open) {
          <brelvin-value
            [narrow]="true"
            [spec]="open"
            [value]="row.value"
            [image]="node().image"
            (changed)="valueChanged(row.spec, $event.value, $event.gesture)"
            (imageChosen)="chooseImage($event)"
            (resetAsked)="reset(row.spec)"
          />
        }
        @if (row.factor; as factor) {
          <span class="card-factor" [title]="factor.spec.help"
            ><span aria-hidden="true">×</span>
            <brelvin-value
              [narrow]="true"
              [spec]="factor.spec"
              [value]="factor.value"
              (changed)="factorChanged(row.spec, $event.value, $event.gesture)"
              (resetAsked)="resetFactor(row.spec)"
          /></span>
        }
      </div>
    }
    @if (kind()?.features; as features) {
      <div class="card-features" role="group" aria-label="Features" [style.--columns]="columns()">
        @for (feature of features; track feature.name) {
          <button
            type="button"
            class="card-feature"
            [attr.data-feature]="feature.name"
            [attr.aria-pressed]="hasFeature(feature.name)"
            [title]="feature.help"
            (pointerdown)="$event.stopPropagation()"
            (click)="switchFeature(feature)"
          >
            {{ feature.label }}
          </button>
        }
      </div>
    }
    @if (hasCurve()) {
      <brelvin-card-curve [kind]="kind()" [values]="node().values" [open]="open()" />
    }
    <div class="card-ticks" [title]="ticks().words" role="img" [attr.aria-label]="ticks().words">
      @for (tick of ticks().marks; track $index) {
        <span class="card-tick"></span>
      }
    </div>
  `,
})
export class NodeCard {
  readonly id = input.required<string>();
  readonly node = input.required<GraphNode>();
  readonly kind = input<NodeKind>();
  readonly rate = input<Rate>();
  readonly problem = input<string>();
  readonly selected = input(false);
  /** Nothing carries it to the dock. */
  readonly unused = input(false);
  readonly naming = input(false);
  readonly named = output<void>();

  private readonly context = inject(BenchContext);
  private readonly editor = inject(GraphEditor);
  private readonly costs = inject(CostWatch);
  protected readonly outlets = inject(OutletInspector);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('name');

  /** A parameter's value as its node shows it: one number, or a colour. */
  protected readonly parameter = computed((): { readonly spec: ValueSpec; readonly value: InletValue } | undefined => {
    const found = this.editor.subject().parameters[this.node().parameter ?? ''];
    if (!found) return undefined;
    return { spec: specOfParameter(found), value: found.value };
  });
  protected readonly title = computed(() =>
    this.kind() ? titleOfNode(this.context.catalogue, this.editor.subject(), this.node()) : `Unknown: ${this.node().kind}`,
  );

  constructor() {
    afterRenderEffect(() => {
      const field = this.nameField()?.nativeElement;
      if (!field || document.activeElement === field) return;
      field.focus();
      field.select();
    });
  }
  protected readonly ticks = computed(() => {
    const rate = this.rate();
    if (!rate) return { marks: [], words: 'Not part of the picture: nothing carries it to the dock' };
    const { ticks, words } = RATE_TICKS[rate];
    return { marks: Array.from({ length: ticks }), words };
  });

  /** What it costs, where cards say so. */
  protected readonly cost = computed(() => {
    const cost = this.costs.byNode().get(this.editor.typed().pathOf(this.id()));
    if (!cost) return undefined;
    const reads = cost.reads > 0 ? ` · ${cost.reads} r` : '';
    return { words: `${counted(cost.instructions)}${reads}`, help: `${costWords(cost)} at most, estimated; the tab cost says more` };
  });

  protected readonly width = computed(() => {
    const kind = this.kind();
    return kind ? cardWidth(kind, this.node(), this.title()) : NARROWEST_CARD;
  });
  protected readonly height = computed(() => {
    const kind = this.kind();
    return kind ? cardHeight(kind, this.node()) : 0;
  });
  protected readonly columns = computed(() => {
    const kind = this.kind();
    return kind ? featureColumns(kind) : 1;
  });

  protected readonly rows = computed((): InletRow[] => {
    const typed = this.editor.typed();
    const types = new Map(typed.inlets(this.id()).map((inlet) => [inlet.spec.name, inlet.type]));
    return (this.kind()?.inlets ?? []).map((spec) => {
      const connected = Object.hasOwn(typed.graph.ribbons, inletKey(this.id(), spec.name));
      const type = types.get(spec.name) ?? this.context.defaultType(spec.meaning);
      const fallback = 'value' in spec.default ? spec.default.value : [];
      return {
        spec,
        type,
        connected,
        width: controlWidth(spec),
        value: asList(this.node().values[spec.name] ?? fallback),
        hasPort: !PORTLESS.has(spec.meaning) || connected,
        open: hasOwnValue(spec) && !connected ? specOfInlet(spec, asList(fallback).length, this.id()) : undefined,
        factor: spec.scales && connected ? { spec: specOfFactor(spec), value: this.node().factors?.[spec.name] ?? 1 } : undefined,
      };
    });
  });

  /** A colour that is picked here and goes out unchanged. */
  protected readonly swatch = computed(() =>
    this.node().kind === 'colour' && !this.rows()[0]?.connected ? this.context.hex(this.rows()[0]?.value ?? []) : undefined,
  );

  protected outletType(name: string): RibbonType {
    return (
      this.editor.typed().outletType({ node: this.id(), outlet: name }) ??
      this.context.defaultType(this.kind()?.outlets.find((outlet) => outlet.name === name)?.meaning ?? 'number')
    );
  }

  protected hasFeature(name: string): boolean {
    return this.node().features?.includes(name) ?? false;
  }

  protected switchFeature({ name, label }: FeatureSpec): void {
    const kind = this.context.catalogue.kinds.get(this.node().kind);
    if (!kind) return;
    const inletsWith = (on: readonly string[]): string[] => featuredKind(kind, on).inlets.map((inlet) => inlet.name);
    this.editor.do(this.editor.typed().edits.switchFeature(this.editor.subject(), this.id(), inletsWith, name, label));
  }

  protected readonly hasCurve = computed(() => hasCurve(this.node().kind));
  /** Inlets whose number is known: nothing runs into them. */
  protected readonly open = computed(() =>
    this.rows()
      .filter((row) => !row.connected)
      .map((row) => row.spec.name),
  );

  protected canPeek(outlet: string): boolean {
    const type = this.outletType(outlet);
    if (this.editor.field() !== undefined) return false;
    return type !== 'image' && type !== 'cubeImage' && type !== 'stops';
  }

  protected isPeeked(outlet: string): boolean {
    const peek = this.outlets.peek();
    return peek !== undefined && outletKey(peek.outlet) === outletKey(this.outlets.addressOf({ node: this.id(), outlet }));
  }

  protected parameterChanged(value: InletValue, gesture?: string): void {
    const id = this.node().parameter;
    if (id) this.editor.do(setParameter(id, 'value', value), gesture);
  }

  protected valueChanged(spec: InletSpec, value: InletValue, gesture?: string): void {
    const { edits } = this.editor.typed();
    this.editor.do(edits.setInletValue({ node: this.id(), inlet: spec.name }, value, `${this.title()}: ${spec.label}`), gesture);
  }

  protected reset(spec: InletSpec): void {
    if (this.node().values[spec.name] === undefined) return;
    this.editor.do(this.editor.typed().edits.resetInletValue({ node: this.id(), inlet: spec.name }, `${this.title()}: ${spec.label}`));
  }

  protected factorChanged(spec: InletSpec, value: InletValue, gesture?: string): void {
    const { edits } = this.editor.typed();
    const at = { node: this.id(), inlet: spec.name };
    this.editor.do(edits.setFactor(this.editor.subject(), at, value, `${this.title()}: ${spec.label}`), gesture);
  }

  protected resetFactor(spec: InletSpec): void {
    if (this.node().factors?.[spec.name] === undefined) return;
    this.editor.do(this.editor.typed().edits.resetFactor({ node: this.id(), inlet: spec.name }, `${this.title()}: ${spec.label}`));
  }

  protected nameKey(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Enter' || event.key === 'Escape') (event.target as HTMLElement).blur();
  }

  protected finishNaming(): void {
    const name = this.nameField()?.nativeElement.value.trim() ?? '';
    if (name !== this.title()) this.rename(name);
    this.named.emit();
  }

  /** A parameter and a group have one name wherever they stand; other nodes one of their own. */
  private rename(name: string): void {
    const { parameter, group } = this.node();
    if (parameter !== undefined) this.editor.do(name ? setParameter(parameter, 'name', name) : undefined);
    else if (group !== undefined) this.editor.do(name ? titleGroup(group, name) : undefined);
    else this.editor.rename(this.id(), name);
  }

  protected chooseImage(image: string): void {
    this.editor.do(this.editor.typed().edits.setImage(this.id(), image));
  }
}

function asList(value: InletValue): readonly number[] {
  return typeof value === 'number' ? [value] : value;
}

/** Read in place: no ribbon brings one. */
const PORTLESS: ReadonlySet<Meaning> = new Set(['image', 'cubeImage']);

function hasOwnValue({ meaning, default: fallback }: InletSpec): boolean {
  return meaning !== 'light' && !('surface' in fallback);
}
