import { computed, Injectable, signal } from '@angular/core';
import { TERMS, WHOLE_PICTURE, type DebugView, type Inspection, type Term } from '@brelvin/core';

/** What takes light away, inside of the terms. */
export type Factor = 'shadow' | 'occlusion';

/** A whole turn in twelve seconds. */
export const TURN_SPEED = 30;

/** How the picture is looked at: its terms by weight, a property instead of it. Not part of any document, and not undone. */
@Injectable()
export class ViewSettings {
  private readonly state = signal<Inspection>(WHOLE_PICTURE);
  private lastView: DebugView = 'normals';

  readonly inspection = this.state.asReadonly();
  readonly handlesShown = signal(true);
  /** Whether the camera goes round by itself, and how many degrees a second. */
  readonly turning = signal(false);
  readonly turnSpeed = signal(TURN_SPEED);

  /** The term that is seen alone; nothing while several are. */
  readonly alone = computed((): Term | undefined => {
    const { weights } = this.inspection();
    const seen = TERMS.filter((term) => weights[term] !== 0);
    return seen.length === 1 && weights[seen[0] ?? 'ambient'] === 1 ? seen[0] : undefined;
  });
  readonly isWhole = computed(() => {
    const { weights, shadow, occlusion, surface } = this.inspection();
    return surface === 'whole' && shadow === 1 && occlusion === 1 && TERMS.every((term) => weights[term] === 1);
  });

  weigh(term: Term, weight: number): void {
    this.state.update((each) => ({ ...each, weights: { ...each.weights, [term]: weight } }));
  }

  /** Shows one term alone; all again when it already is. */
  isolate(term: Term): void {
    if (this.alone() === term) this.putTogether();
    else this.state.update((each) => ({ ...each, weights: weightsOf((one) => (one === term ? 1 : 0)) }));
  }

  /** How strongly shadows, or near surfaces, take light away, 0…1. */
  weighFactor(factor: Factor, weight: number): void {
    this.state.update((each) => ({ ...each, [factor]: weight }));
  }

  /** Shows shadows or near occlusion alone in grey; the picture again when they already are. */
  isolateFactor(factor: Factor): void {
    this.see(this.inspection().view === factor ? 'none' : factor);
  }

  /** Colour without light, or light without colour; the whole again when it already is. */
  showSurface(surface: 'albedo' | 'light'): void {
    this.state.update((each) => ({ ...each, surface: each.surface === surface ? 'whole' : surface }));
  }

  putTogether(): void {
    this.state.update((each) => ({
      ...each,
      weights: weightsOf(() => 1),
      shadow: 1,
      occlusion: 1,
      surface: 'whole',
      view: each.view === 'shadow' || each.view === 'occlusion' ? 'none' : each.view,
    }));
  }

  see(view: DebugView): void {
    if (view !== 'none') this.lastView = view;
    this.state.update((each) => ({ ...each, view }));
  }

  /** So many steps through a field are at the end of the scale. */
  scaleSteps(mostSteps: number): void {
    this.state.update((each) => ({ ...each, mostSteps }));
  }

  /** Goes to the view that was used last, and back. */
  toggleView(): void {
    this.see(this.inspection().view === 'none' ? this.lastView : 'none');
  }

  /** Names the light that distance rings are drawn round, by its number from 0. */
  ringRound(light: number): void {
    if (light !== this.inspection().light) this.state.update((each) => ({ ...each, light }));
  }
}

function weightsOf(weight: (term: Term) => number): Record<Term, number> {
  return Object.fromEntries(TERMS.map((term) => [term, weight(term)])) as Record<Term, number>;
}
