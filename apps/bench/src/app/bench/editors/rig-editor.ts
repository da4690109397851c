import { computed, inject, Injectable, signal } from '@angular/core';
import type { LightRig, RigLight } from '@brelvin/contract';
import { isPunctual, lightsOf, newRig, numberedLights, standingLight, SUN, type Edit, type StandingLight } from '@brelvin/core';
import { DocumentStore } from '../documents/document-store';

const NO_RIG = newRig('');

/** The light rig that is worked on: which of its lights is chosen, and all that is done to it. */
@Injectable()
export class RigEditor {
  private readonly store = inject(DocumentStore);
  private readonly wanted = signal(SUN);

  /** The one on the Bench; a plain one until it is there. */
  readonly rig = computed((): LightRig => this.store.rig() ?? NO_RIG);
  /** The lights' own clock, seconds, as of the last picture. */
  readonly seconds = signal(0);

  /** The id of the chosen light; the sun when it is gone. */
  readonly chosen = computed(() => (lightsOf(this.rig()).some(([id]) => id === this.wanted()) ? this.wanted() : SUN));
  readonly light = computed((): RigLight => lightsOf(this.rig()).find(([id]) => id === this.chosen())?.[1] ?? this.rig().sun);
  /** Lights that stand somewhere and are on, as they stand now. */
  readonly standing = computed((): StandingLight[] =>
    lightsOf(this.rig())
      .filter(([, light]) => light.on && isPunctual(light))
      .map(([id, light]) => standingLight(id, light, this.seconds())),
  );
  /** The number of the chosen light, as nodes count them, from 1. */
  readonly number = computed(() => numberedLights(this.rig()).findIndex(([id]) => id === this.chosen()) + 1);

  choose(id: string): void {
    this.wanted.set(id);
  }

  do(edit: Edit, gesture?: string): void {
    if (edit.changes.length > 0) this.store.edit('rig', edit, gesture);
  }
}
