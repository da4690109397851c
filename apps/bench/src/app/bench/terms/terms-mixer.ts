import { ChangeDetectionStrategy, Component, inject, ViewEncapsulation } from '@angular/core';
import { TERMS, type Term } from '@brelvin/core';
import { ViewSettings, type Factor } from '../stage/view-settings';

const MOST = 2;
const DRAG_STARTS_AFTER = 3;
const KEY_STEP = 0.1;

/** A bar of the mixer: a term, or shadow and ambient occlusion, which are factors inside of the others. */
type Bar = Term | Factor;

const BARS: readonly Bar[] = [...TERMS, 'shadow', 'occlusion'];
const WORDS: Readonly<Record<Bar, string>> = {
  ambient: 'Ambient light, and that of the environment on matte surfaces',
  diffuse: 'Diffuse light of the lights',
  specular: 'Highlights of the lights',
  reflection: 'Reflections of the environment',
  transmission: 'Light that comes through',
  emission: 'Emission, colours without light included',
  shadow: 'How dark shadows are; alone, they are seen in grey',
  occlusion: 'How dark ambient occlusion is, where the rig has it switched on',
};

/** A bar for each term of the light: press one to see it alone, drag it to weigh it. */
@Component({
  selector: 'brelvin-terms-mixer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './terms-mixer.css',
  host: { class: 'terms-mixer' },
  template: `
    <div class="terms-bars">
      @for (term of terms; track term) {
        <div
          class="term"
          role="slider"
          tabindex="0"
          aria-orientation="vertical"
          [attr.aria-label]="term"
          aria-valuemin="0"
          [attr.aria-valuemax]="most(term)"
          [attr.aria-valuenow]="weight(term)"
          [attr.data-term]="term"
          [class.term-alone]="isAlone(term)"
          [title]="words[term] + '. Press to see it alone and again for the whole, drag to weigh it, double-click for 1.'"
          (pointerdown)="down($event, term)"
          (pointermove)="move($event)"
          (pointerup)="up()"
          (pointercancel)="held = undefined"
          (dblclick)="put(term, 1)"
          (keydown)="key($event, term)"
        >
          <span class="term-track"
            ><span class="term-level" [style.height.%]="(weight(term) / most(term)) * 100"></span
            ><span class="term-one" [style.top.%]="100 - 100 / most(term)"></span
          ></span>
          <span class="term-name">{{ term }}</span>
        </div>
      }
    </div>
    <div class="terms-choices">
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="settings.inspection().surface === 'albedo'"
        title="The colour of the surface without any light on it"
        (click)="settings.showSurface('albedo')"
      >
        colour only
      </button>
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="settings.inspection().surface === 'light'"
        title="The light on a white surface"
        (click)="settings.showSurface('light')"
      >
        light only
      </button>
      <button type="button" class="choice-alone" [disabled]="settings.isWhole()" (click)="settings.putTogether()">whole</button>
    </div>
  `,
})
export class TermsMixer {
  protected readonly settings = inject(ViewSettings);
  protected readonly terms = BARS;
  protected readonly words = WORDS;
  protected held?: { readonly term: Bar; readonly y: number; readonly tall: number; readonly start: number; moved: boolean };

  protected weight(term: Bar): number {
    const inspection = this.settings.inspection();
    return isFactor(term) ? inspection[term] : inspection.weights[term];
  }

  /** Nothing can be darker than it is. */
  protected most(term: Bar): number {
    return isFactor(term) ? 1 : MOST;
  }

  protected isAlone(term: Bar): boolean {
    return isFactor(term) ? this.settings.inspection().view === term : this.settings.alone() === term;
  }

  private isolate(term: Bar): void {
    if (isFactor(term)) this.settings.isolateFactor(term);
    else this.settings.isolate(term);
  }

  protected down(event: PointerEvent, term: Bar): void {
    if (event.button !== 0) return;
    const bar = event.currentTarget as HTMLElement;
    bar.setPointerCapture(event.pointerId);
    const tall = bar.querySelector('.term-track')?.getBoundingClientRect().height ?? 100;
    this.held = { term, y: event.clientY, tall, start: this.weight(term), moved: false };
  }

  protected move(event: PointerEvent): void {
    const { held } = this;
    if (!held) return;
    const up = held.y - event.clientY;
    held.moved ||= Math.abs(up) > DRAG_STARTS_AFTER;
    if (held.moved) this.put(held.term, held.start + (up / held.tall) * this.most(held.term));
  }

  protected up(): void {
    if (this.held && !this.held.moved) this.isolate(this.held.term);
    this.held = undefined;
  }

  protected key(event: KeyboardEvent, term: Bar): void {
    if (event.key === 'Enter' || event.key === ' ') this.isolate(term);
    else if (event.key === 'ArrowUp' || event.key === 'ArrowRight') this.put(term, this.weight(term) + KEY_STEP);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowLeft') this.put(term, this.weight(term) - KEY_STEP);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  protected put(term: Bar, weight: number): void {
    const within = Math.round(Math.min(Math.max(weight, 0), this.most(term)) * 100) / 100;
    if (isFactor(term)) this.settings.weighFactor(term, within);
    else this.settings.weigh(term, within);
  }
}

function isFactor(bar: Bar): bar is Factor {
  return bar === 'shadow' || bar === 'occlusion';
}
