import { ChangeDetectionStrategy, Component, computed, inject, signal, ViewEncapsulation } from '@angular/core';
import type { LightRig, ToneCurve } from '@brelvin/contract';
import { backgroundKind, FIRST_OCCLUSION, setBackgroundKind, setRig, type BackgroundKind } from '@brelvin/core';
import { ColourField } from '../../shared/controls/colour-field';
import { NumberField } from '../../shared/controls/number-field';
import { BackgroundField } from './background-field';
import { RigEditor } from '../editors/rig-editor';

const CURVES: readonly (readonly [ToneCurve, string, string])[] = [
  ['none', 'none', 'What is brighter than 1 is cut off.'],
  ['reinhard', 'Reinhard', 'Presses all brightness into the picture; dull at the top.'],
  ['aces', 'ACES fit', 'As on film: strong contrast, bright colours bleach.'],
  ['neutral', 'Khronos PBR Neutral', 'Colours below four fifths stay exactly as they are.'],
];

const BEHINDS: readonly (readonly [BackgroundKind, string, string])[] = [
  ['colour', 'colour', 'The same colour everywhere.'],
  ['gradient', 'gradient', 'One colour below, another above.'],
  ['image', 'flat image', 'An image that stays behind the picture, however the camera turns. It lights nothing.'],
  ['environment', 'environment', 'The environment map, seen behind the meshes; it is chosen under “environment”.'],
  ['nothing', 'nothing', 'Stills get an alpha channel; here squares show what is empty.'],
];

/** How the picture is shown: exposure, tone mapping, what is behind the meshes, bloom and fog. */
@Component({
  selector: 'brelvin-picture-panel',
  imports: [BackgroundField, ColourField, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './picture-panel.css',
  host: { class: 'picture-panel' },
  template: `
    <span class="field-label">Exposure</span>
    <brelvin-number
      label="Exposure"
      help="In stops: plus one is twice as bright."
      [value]="rig().exposure"
      unit="stops"
      [range]="{ low: -6, high: 6, open: 'both' }"
      (changed)="set('exposure', $event.value, 'Exposure', $event.gesture)"
      (resetAsked)="set('exposure', 0, 'Exposure')"
    />
    <span class="field-label">Tone mapping</span>
    <select #curve class="text-input" aria-label="Tone mapping" (change)="set('curve', $any(curve.value), 'Tone mapping')">
      @for (each of curves; track each[0]) {
        <option [value]="each[0]" [selected]="rig().curve === each[0]" [title]="each[2]">{{ each[1] }}</option>
      }
    </select>
    <span class="field-label">Background</span>
    <select #behind class="text-input" aria-label="Kind of background" (change)="putBehind($any(behind.value))">
      @for (each of behinds; track each[0]) {
        <option
          [value]="each[0]"
          [selected]="kind() === each[0]"
          [disabled]="each[0] === 'environment' && !rig().environment"
          [title]="each[2]"
        >
          {{ each[1] }}
        </option>
      }
    </select>
    @if (kind() === 'colour' || kind() === 'gradient') {
      <span class="field-label">{{ kind() === 'gradient' ? 'Colours' : 'Colour' }}</span>
      <span class="light-colour">
        <brelvin-colour
          label="Background"
          [value]="rig().background"
          (changed)="set('background', $event.value, 'Background', $event.gesture)"
        />
        @if (rig().backgroundTop; as top) {
          <brelvin-colour
            label="Background above"
            [value]="top"
            (changed)="set('backgroundTop', $event.value, 'Background', $event.gesture)"
          />
        }
      </span>
    }
    @if (kind() === 'image') {
      <span class="field-label">Image</span>
      <brelvin-background-field (chosen)="answered()" />
    }
    <span class="field-label">Ambient occlusion</span>
    <span class="light-colour">
      <button
        type="button"
        class="choice-alone"
        aria-label="Ambient occlusion"
        [attr.aria-pressed]="rig().occlusion !== undefined"
        title="Darkens ambient light and that of the environment where surfaces are close to each other. Bands and ramps take part only where their node has the feature on."
        (click)="set('occlusion', rig().occlusion ? undefined : occlusion, 'Ambient occlusion')"
      >
        {{ rig().occlusion ? 'on' : 'off' }}
      </button>
      @if (rig().occlusion; as near) {
        <brelvin-number
          label="Radius of ambient occlusion"
          help="How far away a surface may be to occlude."
          [value]="near.radius"
          [range]="{ low: 0.05, high: 2, open: 'above' }"
          suffix=" m"
          (changed)="set('occlusion', { radius: inReach($event.value), strength: near.strength }, 'Ambient occlusion', $event.gesture)"
          (resetAsked)="set('occlusion', { radius: occlusion.radius, strength: near.strength }, 'Ambient occlusion')"
        />
        <brelvin-number
          label="Strength of ambient occlusion"
          help="0 is none, 1 is full."
          [value]="near.strength"
          [range]="{ low: 0, high: 1 }"
          (changed)="set('occlusion', { radius: near.radius, strength: within1($event.value) }, 'Ambient occlusion', $event.gesture)"
          (resetAsked)="set('occlusion', { radius: near.radius, strength: occlusion.strength }, 'Ambient occlusion')"
        />
      }
    </span>
    <span class="field-label">Bloom</span>
    <brelvin-number
      label="Bloom"
      help="How much light spreads round what is brighter than the threshold."
      [value]="rig().bloom.strength"
      [range]="{ low: 0, high: 1 }"
      (changed)="set('bloom', { strength: atLeast0($event.value), from: rig().bloom.from }, 'Bloom', $event.gesture)"
      (resetAsked)="set('bloom', { strength: 0, from: rig().bloom.from }, 'Bloom')"
    />
    <span class="field-label">Bloom threshold</span>
    <brelvin-number
      label="Bloom threshold"
      help="Brightness, after exposure, from which light spreads."
      [value]="rig().bloom.from"
      [range]="{ low: 0, high: 4, open: 'above' }"
      (changed)="set('bloom', { strength: rig().bloom.strength, from: atLeast0($event.value) }, 'Bloom', $event.gesture)"
      (resetAsked)="set('bloom', { strength: rig().bloom.strength, from: 1 }, 'Bloom')"
    />
    <span class="field-label">Fog</span>
    <span class="light-colour">
      <brelvin-colour
        label="Colour of the fog"
        [value]="rig().fog.colour"
        (changed)="set('fog', { density: rig().fog.density, colour: $event.value }, 'Fog', $event.gesture)"
      />
      <brelvin-number
        label="Fog"
        help="How fast things fade with distance; 0 is clear air."
        [value]="rig().fog.density"
        [range]="{ low: 0, high: 1 }"
        (changed)="set('fog', { density: atLeast0($event.value), colour: rig().fog.colour }, 'Fog', $event.gesture)"
        (resetAsked)="set('fog', { density: 0, colour: rig().fog.colour }, 'Fog')"
      />
    </span>
  `,
})
export class PicturePanel {
  private readonly editor = inject(RigEditor);
  protected readonly rig = this.editor.rig;
  protected readonly curves = CURVES;
  protected readonly occlusion = FIRST_OCCLUSION;

  protected readonly behinds = BEHINDS;
  /** A flat image is wanted, but none is chosen yet: nothing changes until then. */
  private readonly asking = signal(false);
  protected readonly kind = computed(() => (this.asking() ? 'image' : backgroundKind(this.rig())));

  protected putBehind(kind: BackgroundKind): void {
    this.asking.set(kind === 'image' && !this.rig().backgroundImage);
    if (!this.asking()) this.editor.do(setBackgroundKind(this.rig(), kind));
  }

  protected answered(): void {
    this.asking.set(false);
  }

  protected set<K extends 'background' | 'backgroundTop' | 'exposure' | 'curve' | 'bloom' | 'fog' | 'occlusion'>(
    field: K,
    value: LightRig[K],
    label: string,
    gesture?: string,
  ): void {
    this.editor.do(setRig(field, value, label), gesture);
  }

  /** Metres that ambient occlusion may look. */
  protected inReach(value: number): number {
    return Math.min(Math.max(value, 0.001), 1000);
  }

  protected within1(value: number): number {
    return Math.min(Math.max(value, 0), 1);
  }

  /** What cannot be less than nothing. */
  protected atLeast0(value: number): number {
    return Math.max(value, 0);
  }
}
