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
} from '@angular/core';
import {
  featuredKind,
  hasCurve,
  inletKey,
  iorOfReflectivity,
  reflectivityOfIor,
  setParameter,
  titleGroup,
  titleOfNode,
  type FeatureSpec,
  type GraphNode,
  type InletSpec,
  type InletValue,
  type MaterialParameter,
  type NodeKind,
  type Rate,
  type RibbonType,
} from '@brelvin/core';
import { ColourField } from '../../shared/controls/colour-field';
import { GradientField } from '../../shared/controls/gradient-field';
import { NumberField, type NumberChange } from '../../shared/controls/number-field';
import { Icon } from '../../shared/icons/icon';
import { BenchContext } from '../bench-context';
import { ImageField } from '../images/image-field';
import { CardPreview } from '../looking/card-preview';
import { CardValues } from '../looking/card-values';
import { OutletWork } from '../looking/outlet-work';
import { outletKey } from '../stage/outlet-lens';
import { CardCurve } from './card-curve';
import { GraphWork } from './graph-work';
import { Port } from './port';

interface InletRow {
  readonly spec: InletSpec;
  readonly type: RibbonType;
  readonly connected: boolean;
  readonly control: 'none' | 'choice' | 'number' | 'ior' | 'colour' | 'stops' | 'vector' | 'image';
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
  imports: [CardCurve, CardPreview, CardValues, ColourField, GradientField, Icon, ImageField, NgTemplateOutlet, NumberField, Port],
  changeDetection: ChangeDetectionStrategy.OnPush,
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
        <span class="card-name">{{ title() }}</span>
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
        @if (found.type === 'colour') {
          <span class="card-label">Value</span>
          <brelvin-colour
            class="card-control"
            [label]="found.name"
            [value]="parameterColour()"
            (changed)="parameterChanged($event.value, $event.gesture)"
          />
        } @else {
          <span class="card-label">Value</span>
          <brelvin-number
            class="card-control"
            [label]="found.name"
            [value]="parameterNumber()"
            [range]="{ low: found.low, high: found.high }"
            (changed)="parameterChanged($event.value, $event.gesture)"
          />
        }
      </div>
    }
    @for (row of rows(); track row.spec.name) {
      <div class="card-row" [title]="row.spec.help">
        @if (row.control !== 'stops' && row.control !== 'image') {
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
        @switch (row.control) {
          @case ('number') {
            <brelvin-number
              class="card-control"
              [label]="row.spec.label"
              [help]="row.spec.help"
              [value]="row.value[0] ?? 0"
              [range]="{ low: row.spec.low, high: row.spec.high, whole: row.spec.meaning === 'count' }"
              (changed)="numberChanged(row.spec, $event)"
              (resetAsked)="reset(row.spec)"
            />
          }
          @case ('colour') {
            <brelvin-colour
              class="card-control"
              [label]="row.spec.label"
              [value]="row.value"
              (changed)="valueChanged(row.spec, $event.value, $event.gesture)"
            />
          }
          @case ('stops') {
            <brelvin-gradient
              class="card-control"
              [label]="row.spec.label"
              [value]="row.value"
              (changed)="valueChanged(row.spec, $event.value, $event.gesture)"
            />
          }
          @case ('image') {
            <brelvin-image-field
              class="card-control"
              [user]="{ node: id() }"
              [image]="node().image"
              [cube]="row.spec.meaning === 'cubeImage'"
              (chosen)="chooseImage($event)"
            />
          }
          @case ('choice') {
            <select
              #choice
              class="text-input card-control card-choice"
              [attr.aria-label]="row.spec.label"
              (pointerdown)="$event.stopPropagation()"
              (keydown)="$event.stopPropagation()"
              (change)="valueChanged(row.spec, +choice.value)"
            >
              @for (words of row.spec.choices ?? []; track $index; let index = $index) {
                <option [value]="index" [selected]="index === rounded(row.value[0])">{{ words }}</option>
              }
            </select>
          }
          @case ('ior') {
            <span class="card-control card-vector">
              <brelvin-number
                [label]="row.spec.label"
                [help]="row.spec.help"
                [value]="row.value[0] ?? 1.5"
                [range]="{ low: row.spec.low, high: row.spec.high }"
                (changed)="numberChanged(row.spec, $event)"
                (resetAsked)="reset(row.spec)"
              />
              <brelvin-number
                label="Reflectivity"
                help="How much it mirrors head on, in percent: linked with the index of refraction, whichever is typed."
                suffix="%"
                [value]="reflectivity(row)"
                [range]="{ low: 0, high: 20 }"
                (changed)="reflectivityChanged(row.spec, $event)"
                (resetAsked)="reset(row.spec)"
              />
            </span>
          }
          @case ('vector') {
            <span class="card-control card-vector">
              @for (part of row.value; track $index; let index = $index) {
                <brelvin-number
                  [label]="row.spec.label + ' ' + 'xyzw'[index]"
                  [value]="part"
                  (changed)="partChanged(row, index, $event)"
                  (resetAsked)="reset(row.spec)"
                />
              }
            </span>
          }
        }
      </div>
    }
    @if (kind()?.features; as features) {
      <div class="card-features" role="group" aria-label="Features">
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
  private readonly work = inject(GraphWork);
  protected readonly outlets = inject(OutletWork);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('name');

  protected readonly parameter = computed(
    (): MaterialParameter | undefined => this.work.material().parameters[this.node().parameter ?? ''],
  );
  protected readonly title = computed(() =>
    this.kind() ? titleOfNode(this.context.catalogue, this.work.material(), this.node()) : `Unknown: ${this.node().kind}`,
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

  protected readonly rows = computed((): InletRow[] => {
    const typed = this.work.typed();
    const types = new Map(typed.inlets(this.id()).map((inlet) => [inlet.spec.name, inlet.type]));
    return (this.kind()?.inlets ?? []).map((spec) => {
      const connected = Object.hasOwn(typed.graph.ribbons, inletKey(this.id(), spec.name));
      const type = types.get(spec.name) ?? this.context.defaultType(spec.meaning);
      const fallback = 'value' in spec.default ? spec.default.value : [];
      return {
        spec,
        type,
        connected,
        value: asList(this.node().values[spec.name] ?? fallback),
        control: controlFor(spec, connected, fallback.length),
      };
    });
  });

  /** A colour that is picked here and goes out unchanged. */
  protected readonly swatch = computed(() =>
    this.node().kind === 'colour' && !this.rows()[0]?.connected ? this.context.hex(this.rows()[0]?.value ?? []) : undefined,
  );

  protected outletType(name: string): RibbonType {
    return (
      this.work.typed().outletType({ node: this.id(), outlet: name }) ??
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
    this.work.do(this.work.typed().edits.switchFeature(this.work.material(), this.id(), inletsWith, name, label));
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
    return type !== 'image' && type !== 'cubeImage' && type !== 'stops';
  }

  protected isPeeked(outlet: string): boolean {
    const peek = this.outlets.peek();
    return peek !== undefined && outletKey(peek.outlet) === outletKey(this.outlets.addressOf({ node: this.id(), outlet }));
  }

  protected rounded(value = 0): number {
    return Math.round(value);
  }

  protected parameterNumber(): number {
    return asList(this.parameter()?.value ?? 0)[0] ?? 0;
  }

  protected parameterColour(): readonly number[] {
    return asList(this.parameter()?.value ?? [0, 0, 0]);
  }

  protected parameterChanged(value: InletValue, gesture?: string): void {
    const id = this.node().parameter;
    if (id) this.work.do(setParameter(id, 'value', value), gesture);
  }

  protected numberChanged(spec: InletSpec, { value, gesture }: NumberChange): void {
    this.valueChanged(spec, value, gesture);
  }

  protected partChanged(row: InletRow, index: number, { value, gesture }: NumberChange): void {
    this.valueChanged(
      row.spec,
      row.value.map((each, at) => (at === index ? value : each)),
      gesture,
    );
  }

  /** Percent. */
  protected reflectivity({ value: [ior = 1.5] }: InletRow): number {
    return Math.round(reflectivityOfIor(ior) * 1e4) / 100;
  }

  protected reflectivityChanged(spec: InletSpec, { value, gesture }: NumberChange): void {
    this.valueChanged(spec, Math.round(iorOfReflectivity(value / 100) * 1e4) / 1e4, gesture);
  }

  protected valueChanged(spec: InletSpec, value: InletValue, gesture?: string): void {
    const { edits } = this.work.typed();
    this.work.do(edits.setInletValue({ node: this.id(), inlet: spec.name }, value, `${this.title()}: ${spec.label}`), gesture);
  }

  protected reset(spec: InletSpec): void {
    if (this.node().values[spec.name] === undefined) return;
    this.work.do(this.work.typed().edits.resetInletValue({ node: this.id(), inlet: spec.name }, `${this.title()}: ${spec.label}`));
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
    if (parameter !== undefined) this.work.do(name ? setParameter(parameter, 'name', name) : undefined);
    else if (group !== undefined) this.work.do(name ? titleGroup(group, name) : undefined);
    else this.work.rename(this.id(), name);
  }

  protected chooseImage(image: string): void {
    this.work.do(this.work.typed().edits.setImage(this.id(), image));
  }
}

function asList(value: InletValue): readonly number[] {
  return typeof value === 'number' ? [value] : value;
}

function controlFor(spec: InletSpec, connected: boolean, size: number): InletRow['control'] {
  if (connected || 'surface' in spec.default) return 'none';
  if (spec.meaning === 'stops') return 'stops';
  if (spec.meaning === 'image' || spec.meaning === 'cubeImage') return 'image';
  if (spec.meaning === 'light') return 'none';
  if (spec.choices) return 'choice';
  if (spec.meaning === 'ior') return 'ior';
  if (spec.meaning === 'colour') return 'colour';
  return size > 1 ? 'vector' : 'number';
}
