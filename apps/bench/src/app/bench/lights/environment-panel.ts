import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import type { RigEnvironment } from '@brelvin/contract';
import { setEnvironment } from '@brelvin/core';
import { NumberField } from '../../shared/controls/number-field';
import { Icon } from '../../shared/icons/icon';
import { EnvironmentDrop } from './environment-drop';
import { EnvironmentEditor, type KnownEnvironment } from './environment-editor';
import { RigEditor } from '../editors/rig-editor';
import { StageBinding } from '../stage/stage-binding';

/** What is all around: chosen with one click, and how it lights and is seen. */
@Component({
  selector: 'brelvin-environment-panel',
  imports: [EnvironmentDrop, Icon, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './environment-panel.css',
  host: { class: 'environment-panel' },
  template: `
    <div class="environment-list" brelvinEnvironmentDrop role="radiogroup" aria-label="Environment">
      <button
        type="button"
        class="environment-choice"
        role="radio"
        [attr.aria-checked]="!environment()"
        title="Remove the environment: only the lights and the background are left"
        (click)="editor.choose(undefined)"
      >
        none
      </button>
      @for (each of choices(); track each.assets.join()) {
        <button
          type="button"
          class="environment-choice"
          role="radio"
          [attr.aria-checked]="isUsed(each)"
          [title]="each.name + ': use it; rotation, intensity and blur stay as they are'"
          (click)="editor.choose(each)"
        >
          {{ each.name }}
        </button>
      }
      <button
        type="button"
        class="text-button"
        title="One .hdr, .exr or plain panorama, or the six images of a cube"
        (click)="file.click()"
      >
        import …
      </button>
      <input
        #file
        type="file"
        multiple
        class="sr-only"
        tabindex="-1"
        aria-label="Import an environment"
        accept=".hdr,.pic,.exr,image/png,image/jpeg,image/webp"
        (change)="take(file)"
      />
    </div>
    <div class="environment-fields">
      @if (editor.job(); as job) {
        <p class="hint environment-wide" role="status">
          {{ job.doing }} “{{ job.name }}” … {{ percent(job.share) }} %
          <button type="button" class="text-button" aria-label="Cancel" title="Leave it out" (click)="job.cancel()">
            <brelvin-icon name="close" />
          </button>
        </p>
      } @else if (filters()) {
        <p class="hint environment-wide" role="status">Blurring it for rough surfaces … {{ percent(filtering() ?? 0) }} %</p>
      }
      @if (editor.refusal(); as words) {
        <p class="hint refusal environment-wide" role="alert">{{ words }}</p>
      }
      @if (editor.missing(); as words) {
        <p class="hint refusal environment-wide" role="alert">{{ words }}</p>
      }
      @for (words of editor.words(); track words) {
        <p class="hint environment-wide" role="status">{{ words }}</p>
      }
      @if (environment(); as shown) {
        <span class="field-label">Lights the set</span>
        <button
          type="button"
          class="text-button"
          role="switch"
          aria-label="It lights the meshes"
          [attr.aria-checked]="shown.lights"
          title="Light the meshes with it, and reflect it in them"
          (click)="set('lights', !shown.lights, shown.lights ? 'Environment without light' : 'Light of the environment')"
        >
          {{ shown.lights ? 'on' : 'off' }}
        </button>
        <span class="field-label">Background</span>
        <button
          type="button"
          class="text-button"
          role="switch"
          aria-label="It is the background"
          [attr.aria-checked]="shown.shows"
          title="Show it as the background; otherwise the background is set in “picture”"
          (click)="set('shows', !shown.shows, shown.shows ? 'Hide the environment' : 'Show the environment')"
        >
          {{ shown.shows ? 'on' : 'off' }}
        </button>
        <span class="field-label">Intensity</span>
        <brelvin-number
          label="Intensity of the environment"
          help="Multiplies its light and its picture."
          [value]="shown.intensity"
          [range]="{ low: 0, high: 4, open: 'above' }"
          (changed)="set('intensity', atLeast0($event.value), 'Intensity of the environment', $event.gesture)"
          (resetAsked)="set('intensity', 1, 'Intensity of the environment')"
        />
        <span class="field-label">Rotation</span>
        <brelvin-number
          label="Rotation of the environment"
          help="Degrees about the vertical; the ring of the light dial turns it too."
          suffix="°"
          [value]="degrees()"
          [range]="{ low: -180, high: 180 }"
          (changed)="set('turn', ($event.value * pi) / 180, 'Turn the environment', $event.gesture)"
          (resetAsked)="set('turn', 0, 'Turn the environment')"
        />
        <span class="field-label">Background blur</span>
        <brelvin-number
          label="Background blur"
          help="0 is sharp; 1 as blurred as in a fully rough surface. Reflections stay as they are."
          [value]="shown.blur"
          [range]="{ low: 0, high: 1 }"
          (changed)="set('blur', within1($event.value), 'Blur of the background', $event.gesture)"
          (resetAsked)="set('blur', 0, 'Blur of the background')"
        />
      } @else {
        <p class="hint environment-wide">
          Choose an environment, or drop a .hdr or .exr panorama here or on the Stage. Metal and glass need something to reflect.
        </p>
      }
    </div>
  `,
})
export class EnvironmentPanel {
  private readonly stage = inject(StageBinding);
  /** How much of it is filtered, 0…1. */
  protected readonly filtering = computed(() => this.stage.state()?.filtering);

  protected readonly editor = inject(EnvironmentEditor);
  private readonly rig = inject(RigEditor);
  protected readonly pi = Math.PI;
  protected readonly environment = computed(() => this.rig.rig().environment);
  protected readonly degrees = computed(() => ((this.environment()?.turn ?? 0) * 180) / Math.PI);
  /** With the one in use, should the workspace not list it. */
  protected readonly choices = computed((): readonly KnownEnvironment[] => {
    const [used, known] = [this.environment(), this.editor.known()];
    return used && !known.some((each) => this.isUsed(each)) ? [...known, used] : known;
  });
  protected readonly filters = computed(() => {
    const share = this.filtering();
    return this.environment() !== undefined && share !== undefined && share < 1;
  });

  constructor() {
    void this.editor.refresh();
  }

  protected isUsed({ assets }: KnownEnvironment): boolean {
    return this.environment()?.assets.join() === assets.join();
  }

  protected take(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    field.value = '';
    if (files.length > 0) void this.editor.take(files);
  }

  protected set<K extends Exclude<keyof RigEnvironment, 'name' | 'assets' | 'light'>>(
    field: K,
    value: RigEnvironment[K],
    label: string,
    gesture?: string,
  ): void {
    this.rig.do(setEnvironment(field, value, label), gesture);
  }

  protected percent(share: number): number {
    return Math.round(share * 100);
  }

  protected atLeast0(value: number): number {
    return Math.max(value, 0);
  }

  protected within1(value: number): number {
    return Math.min(Math.max(value, 0), 1);
  }
}
