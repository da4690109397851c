import { ChangeDetectionStrategy, Component, computed, inject, input, model } from '@angular/core';
import { Tabs, type Tab } from '../../shared/controls/tabs';
import { StageLink } from '../stage/stage-link';
import { StageLook } from '../stage/stage-look';
import { TermsMixer } from '../terms/terms-mixer';
import { EnvironmentPanel } from './environment-panel';
import { LightPanel } from './light-panel';
import { PicturePanel } from './picture-panel';

export type RigTab = 'lights' | 'around' | 'picture' | 'terms';

/** All that is told the light rig, and how its terms are weighed, in tabs. */
@Component({
  selector: 'brelvin-rig-corner',
  imports: [EnvironmentPanel, LightPanel, PicturePanel, Tabs, TermsMixer],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'contents' },
  template: `
    <brelvin-tabs class="panel-tabs" label="Light, environment and picture" [tabs]="tabs()" [(shown)]="shown" />
    @if (ready()) {
      @switch (shown()) {
        @case ('lights') {
          <brelvin-light-panel [camera]="link.camera()" />
        }
        @case ('around') {
          <brelvin-environment-panel [filtering]="link.state()?.filtering" />
        }
        @case ('picture') {
          <brelvin-picture-panel />
        }
        @case ('terms') {
          <brelvin-terms-mixer />
        }
      }
    }
  `,
})
export class RigCorner {
  /** Whether there is a rig already. */
  readonly ready = input.required<boolean>();
  readonly shown = model<RigTab>('lights');

  protected readonly link = inject(StageLink);
  private readonly look = inject(StageLook);
  protected readonly tabs = computed((): readonly Tab<RigTab>[] => [
    { value: 'lights', words: 'light dial' },
    { value: 'around', help: 'The environment: what is all around, and what lights from there' },
    { value: 'picture' },
    { value: 'terms', words: this.look.isWhole() ? 'terms' : 'terms ·' },
  ]);
}
