import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Falloff, InletValue, LightMotionKind, RigLight } from '@brelvin/contract';
import { COLDEST_KELVIN, colourLight, HOTTEST_KELVIN, setLight, temperatureColour } from '@brelvin/core';
import { ColourField } from '../../shared/controls/colour-field';
import { GradientField } from '../../shared/controls/gradient-field';
import { NumberField } from '../../shared/controls/number-field';
import type { NumberRange } from '../../shared/controls/number-drag';
import { ValueControl } from '../values/value-control';
import type { ValueChange, ValueSpec } from '../values/value-spec';
import { RigEditor } from '../editors/rig-editor';

/** A number of a light, with how it is set. */
interface NumberRow {
  readonly label: string;
  /** With the label as it is spoken. */
  readonly spec: ValueSpec;
  readonly value: number;
  readonly reset: number;
  readonly put: (value: number, gesture?: string) => void;
}

/** One of the parts that a light gives: how much of it, and in which colour. */
interface LightPart {
  readonly index: number;
  readonly label: string;
  readonly spec: ValueSpec;
  readonly weight: number;
  readonly tint: readonly number[];
  readonly reset: ValueChange;
}

const PARTS = ['Ambient', 'Diffuse', 'Specular'] as const;
const WHITE = [1, 1, 1];
/** Metres. */
const FIRST_BODY = 0.05;
const FALLOFF_WORDS: readonly (readonly [Falloff, string])[] = [
  ['none', 'none'],
  ['inverseSquare', 'inverse square'],
  ['windowed', 'within a range'],
];
const MOTION_WORDS: readonly (readonly [LightMotionKind, string])[] = [
  ['still', 'still'],
  ['orbit', 'orbits'],
  ['sway', 'sways'],
  ['colours', 'changes colour'],
];
const DEGREES = 180 / Math.PI;
const INTENSITY_HELP = 'At 1 a white surface that faces it reads 1; without a falloff at any distance, else at one metre.';

/** All that the chosen light can be told. */
@Component({
  selector: 'brelvin-light-fields',
  imports: [ColourField, GradientField, NgTemplateOutlet, NumberField, ValueControl],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'light-fields' },
  template: `
    <span class="field-label">Name</span>
    <input
      #name
      class="text-input"
      maxlength="120"
      aria-label="Name of the light"
      [value]="light().name"
      (change)="rename(name)"
      (keydown)="$event.stopPropagation()"
    />
    <span class="field-label">Colour</span>
    <span class="light-colour">
      <brelvin-colour [label]="'Colour of ' + spokenName()" [value]="light().colour" (changed)="paint($event.value, $event.gesture)" />
      @if (light().kind === 'hemisphere') {
        <brelvin-colour
          [label]="'Ground colour of ' + spokenName()"
          [value]="light().ground"
          (changed)="set('ground', $event.value, 'Ground colour', $event.gesture)"
        />
      }
      @if (light().temperature; as temperature) {
        <brelvin-number
          [label]="'Temperature of ' + spokenName()"
          help="The colour of a glowing body: candle 1,900, bulb 2,800, daylight 6,500."
          [value]="temperature"
          [range]="kelvin"
          suffix=" K"
          (changed)="warm($event.value, $event.gesture)"
          (resetAsked)="warm(6500)"
        />
      } @else {
        <button type="button" class="text-button" title="Colour it by temperature, as a glowing body" (click)="warm(6500)">kelvin</button>
      }
    </span>
    @if (stands()) {
      <span class="field-label">Falloff</span>
      <select #falloff class="text-input" aria-label="Falloff" (change)="set('falloff', $any(falloff.value), 'Falloff')">
        @for (each of falloffs; track each[0]) {
          <option [value]="each[0]" [selected]="light().falloff === each[0]">{{ each[1] }}</option>
        }
      </select>
    }
    <ng-container [ngTemplateOutlet]="numbers" [ngTemplateOutletContext]="{ $implicit: rows() }" />
    @for (part of parts(); track part.label) {
      <span class="field-label">{{ part.label }}</span>
      <span class="light-part">
        <brelvin-value [spec]="part.spec" [value]="part.weight" (changed)="weigh(part, $event)" (resetAsked)="weigh(part, part.reset)" />
        <brelvin-colour
          [label]="part.label + ' colour of ' + spokenName()"
          [value]="part.tint"
          (changed)="tint(part.index, $event.value, $event.gesture)"
        />
      </span>
    }
    @if (stands()) {
      <span class="field-label">Body</span>
      <span class="light-part">
        <button
          type="button"
          class="choice-alone"
          [attr.aria-pressed]="light().body !== undefined"
          title="Show a glowing ball at the light’s position"
          (click)="set('body', light().body === undefined ? FIRST_BODY : undefined, 'Body of ' + light().name)"
        >
          visible
        </button>
        @if (light().body; as radius) {
          <brelvin-number
            label="Radius of the body"
            help="Of the ball that is seen where the light stands. The light itself stays a point."
            [value]="radius"
            [range]="{ low: 0.01, high: 0.5, open: 'above' }"
            suffix=" m"
            (changed)="set('body', atLeast($event.value, 0.001), 'Body of ' + light().name, $event.gesture)"
            (resetAsked)="set('body', FIRST_BODY, 'Body of ' + light().name)"
          />
        }
      </span>
    }
    @if (castsShadows()) {
      <span class="field-label">Shadow</span>
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="light().casts"
        title="Parts cast shadows in its light"
        (click)="set('casts', !light().casts, 'Shadow of ' + light().name)"
      >
        casts shadow
      </button>
      @if (light().casts) {
        <span class="field-label">Softness</span>
        <brelvin-number
          label="Softness of the shadow"
          help="How much wider the edge gets with each metre from what casts the shadow (half width)."
          [value]="light().softness"
          [range]="{ low: 0, high: 0.3, open: 'above' }"
          (changed)="set('softness', atLeast0($event.value), 'Softness of a shadow', $event.gesture)"
          (resetAsked)="set('softness', 0.015, 'Softness of a shadow')"
        />
      }
    }
    <span class="field-label">Motion</span>
    <select #motion class="text-input" aria-label="Motion" (change)="move($any(motion.value))">
      @for (each of motions(); track each[0]) {
        <option [value]="each[0]" [selected]="light().motion.kind === each[0]">{{ each[1] }}</option>
      }
    </select>
    @if (light().motion.kind === 'colours') {
      <span class="field-label">Through</span>
      <span class="light-part">
        @if (light().motion.through; as through) {
          <brelvin-gradient label="Gradient of the light" [value]="through" (changed)="runThrough($event.value, $event.gesture)" />
          <button type="button" class="text-button" title="Through all hues instead" (click)="runThrough(undefined)">all hues</button>
        } @else {
          <button
            type="button"
            class="text-button"
            title="It runs through all hues. Press to choose two or more colours instead: it runs through them, there and back"
            (click)="runThrough(firstGradient())"
          >
            all hues
          </button>
        }
      </span>
    }
    <ng-container [ngTemplateOutlet]="numbers" [ngTemplateOutletContext]="{ $implicit: motionRows() }" />
    <ng-template #numbers let-list>
      @for (row of list; track row.spec.label) {
        <span class="field-label">{{ row.label }}</span>
        <brelvin-value [spec]="row.spec" [value]="row.value" (changed)="put(row, $event)" (resetAsked)="row.put(row.reset)" />
      }
    </ng-template>
  `,
})
export class LightFields {
  private readonly editor = inject(RigEditor);
  protected readonly light = this.editor.light;
  protected readonly falloffs = FALLOFF_WORDS;
  protected readonly kelvin: NumberRange = { low: COLDEST_KELVIN, high: HOTTEST_KELVIN };
  protected readonly stands = computed(() => this.light().kind === 'point' || this.light().kind === 'spot');
  protected readonly castsShadows = computed(() => this.light().kind === 'sun' || this.light().kind === 'spot');
  protected readonly motions = computed(() =>
    MOTION_WORDS.filter(([kind]) => kind === 'still' || kind === 'colours' || this.stands() || this.light().kind === 'sun'),
  );
  protected readonly spokenName = computed(() => {
    const { kind, name } = this.light();
    return kind === 'sun' && name === 'Sun' ? 'the sun' : kind === 'ambient' ? 'the ambient light' : name;
  });

  protected readonly rows = computed((): NumberRow[] => {
    const light = this.light();
    const { kind } = light;
    const rows: NumberRow[] = [
      this.number('intensity', 'Intensity', `Intensity of ${this.spokenName()}`, {
        low: 0,
        high: kind === 'ambient' ? 1 : 4,
        open: 'above',
      }),
    ];
    if (this.stands()) {
      if (light.falloff === 'windowed') rows.push(this.number('range', 'Range', 'Range', { low: 0.1, high: 20, open: 'above' }));
      rows.push(
        ...['x', 'y', 'z'].map((axis, index) => this.item('position', index, `Position ${axis}`, { low: -5, high: 5, open: 'both' }, ' m')),
      );
    }
    if (kind === 'spot') {
      rows.push(this.angle(0, 'Inner angle'), this.angle(1, 'Outer angle'));
    }
    return rows;
  });

  /** What it gives from all sides, to be scattered and to be mirrored: how much, and in which colour. */
  protected readonly parts = computed((): LightPart[] => {
    const { weights, tints } = this.light();
    if (!this.stands() && this.light().kind !== 'sun') return [];
    return PARTS.map((label, index) => ({
      index,
      label,
      spec: { kind: 'number', label, range: { low: 0, high: 2, open: 'above' } },
      weight: weights[index] ?? 0,
      tint: tints?.[index] ?? WHITE,
      reset: { value: index === 0 ? 0 : 1 },
    }));
  });

  protected weigh({ index, label }: LightPart, { value, gesture }: ValueChange): void {
    if (typeof value !== 'number') return;
    const next = this.light().weights.map((each, at) => (at === index ? Math.max(value, 0) : each));
    this.set('weights', next, `${label} of ${this.light().name}`, gesture);
  }

  protected tint(index: number, colour: readonly number[], gesture?: string): void {
    const before = this.light().tints ?? [WHITE, WHITE, WHITE];
    const next = before.map((each, at) => (at === index ? colour : each));
    this.set('tints', next, `${PARTS[index]} colour of ${this.light().name}`, gesture);
  }

  /** From the light's own colour to one that is seen at once to be another. */
  protected firstGradient(): readonly number[] {
    return [1, 1, 1, 0, 1, 0.25, 0.05, 1];
  }

  protected runThrough(value: InletValue | undefined, gesture?: string): void {
    const through = typeof value === 'number' ? [value] : value;
    const { through: _, ...motion } = this.light().motion;
    this.set('motion', { ...motion, ...(through ? { through } : {}) }, 'Colours of a light', gesture);
  }

  protected readonly motionRows = computed((): NumberRow[] => {
    const { kind, speed, phase, reach } = this.light().motion;
    if (kind === 'still') return [];
    const row = (label: string, value: number, range: NumberRange, field: 'speed' | 'phase' | 'reach', reset: number): NumberRow => ({
      label,
      spec: { kind: 'number', label: `${label} of the motion`, range },
      value,
      reset,
      put: (next, gesture) => this.set('motion', { ...this.light().motion, [field]: next }, 'Motion of a light', gesture),
    });
    const rows = [
      row('Speed', speed, { low: -2, high: 2, open: 'both' }, 'speed', 0.1),
      row('Phase', phase, { low: 0, high: 1 }, 'phase', 0),
    ];
    return kind === 'sway' ? [...rows, row('Reach', reach, { low: 0, high: 4, open: 'above' }, 'reach', 1)] : rows;
  });

  protected put(row: NumberRow, { value, gesture }: ValueChange): void {
    if (typeof value === 'number') row.put(value, gesture);
  }

  protected set<K extends keyof RigLight>(field: K, value: RigLight[K], label: string, gesture?: string): void {
    this.editor.do(setLight(this.editor.chosen(), field, value, label), gesture);
  }

  protected paint(colour: readonly number[], gesture?: string): void {
    this.editor.do(colourLight(this.editor.chosen(), this.light(), colour), gesture);
  }

  protected warm(kelvin: number, gesture?: string): void {
    this.editor.do(colourLight(this.editor.chosen(), this.light(), temperatureColour(kelvin), kelvin), gesture);
  }

  protected readonly FIRST_BODY = FIRST_BODY;

  protected atLeast0(value: number): number {
    return Math.max(value, 0);
  }

  protected atLeast(value: number, least: number): number {
    return Math.max(value, least);
  }

  protected move(kind: LightMotionKind): void {
    this.set('motion', { ...this.light().motion, kind }, 'Motion of a light');
  }

  protected rename(field: HTMLInputElement): void {
    const name = field.value.trim();
    if (name) this.set('name', name, 'Name a light');
    else field.value = this.light().name;
  }

  private number(field: 'intensity' | 'range', label: string, spoken: string, range: NumberRange): NumberRow {
    return {
      label,
      spec: { kind: 'number', label: spoken, range, ...(field === 'range' ? { suffix: ' m' } : { help: INTENSITY_HELP }) },
      value: this.light()[field],
      reset: field === 'range' ? 6 : this.light().kind === 'ambient' ? 0.08 : 1,
      put: (value, gesture) => this.set(field, Math.max(value, field === 'range' ? 0.001 : 0), `${label} of ${this.light().name}`, gesture),
    };
  }

  private item(field: 'position', index: number, label: string, range: NumberRange, suffix: string): NumberRow {
    return {
      label,
      spec: { kind: 'number', label, range, suffix },
      value: this.light()[field][index] ?? 0,
      reset: 0,
      put: (value, gesture) => {
        const next = this.light()[field].map((each, at) => (at === index ? value : each));
        this.set(field, next, `${label} of ${this.light().name}`, gesture);
      },
    };
  }

  private angle(index: 0 | 1, label: string): NumberRow {
    return {
      label,
      spec: { kind: 'number', label, range: { low: 0, high: 90 }, suffix: '°', help: 'Measured from the middle of the cone to its side.' },
      value: (this.light().cone[index] ?? 0) * DEGREES,
      reset: index === 0 ? 20 : 32,
      put: (degrees, gesture) => {
        const wanted = Math.min(Math.max(degrees, 0), 90) / DEGREES;
        const [inner = 0, outer = 0] = this.light().cone;
        // The inner angle never opens wider than the outer one.
        const cone = index === 0 ? [wanted, Math.max(outer, wanted)] : [Math.min(inner, wanted), wanted];
        this.set('cone', cone, `Cone of ${this.light().name}`, gesture);
      },
    };
  }
}
