import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, inject, ViewEncapsulation } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job, JobState } from '@brelvin/contract';
import { JobApi } from '../shared/api/job-api';
import { Icon } from '../shared/icons/icon';
import { FaultHandler } from '../shared/notices/fault-handler';
import { NoticeList } from '../shared/notices/notice-list';
import { download } from '../shared/pixels/download';
import { ThemeSwitch } from '../shared/themes/theme-switch';
import { JobsList } from './jobs-list';

const STATES: Readonly<Record<JobState, string>> = {
  waiting: 'waits for a worker',
  running: 'is drawn',
  done: 'done',
  failed: 'failed',
  cancelled: 'given up',
};

/** What workers draw for the workspace: how far it is, and what came of it. */
@Component({
  selector: 'brelvin-jobs-page',
  imports: [DatePipe, Icon, NoticeList, RouterLink, ThemeSwitch],
  providers: [JobsList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './jobs-page.css',
  host: { class: 'library' },
  template: `
    <header class="bench-bar">
      <a class="bar-button" routerLink="/">library</a>
      <h1 class="library-title">Jobs</h1>
      @if (list.workers(); as workers) {
        <span class="hint" role="status">
          {{
            workers.drawing === 0 ? 'No worker draws.' : workers.drawing === 1 ? 'One worker draws.' : workers.drawing + ' workers draw.'
          }}
          {{ workers.message }}
        </span>
      }
      <span class="flex-1"></span>
      <button type="button" class="bar-button" title="List them anew" (click)="list.load()">look again</button>
      <brelvin-theme-switch />
    </header>
    <main class="jobs-body">
      @if (list.failure(); as words) {
        <p class="hint" role="alert">The jobs cannot be listed. {{ words }}</p>
      }
      @for (job of list.jobs(); track job.id) {
        <article class="job" [attr.data-job]="job.id" [attr.data-state]="job.state">
          @if (job.state === 'done' && job.asset) {
            <img class="job-picture" [src]="'/api/assets/' + job.asset" [alt]="'Picture of ' + job.title" />
          } @else {
            <span class="job-picture job-none" aria-hidden="true"></span>
          }
          <div class="job-words">
            <h2 class="job-title">{{ job.title }}</h2>
            <p>
              {{ states[job.state] }}{{ job.state === 'running' ? ', ' + percent(job) + ' %' : '' }} ·
              {{ job.createdAt | date: 'd MMM, HH:mm' }}
              @if (job.attempts > 1) {
                · begun {{ job.attempts }} times
              }
            </p>
            @if (job.message; as words) {
              <p class="hint">{{ words }}</p>
            }
            @if (job.state === 'running') {
              <progress class="job-progress" max="1" [value]="job.progress" [attr.aria-label]="job.title"></progress>
            }
            <p class="job-actions">
              @if (job.state === 'waiting' || job.state === 'running') {
                <button type="button" class="text-button" [attr.aria-label]="'Give up ' + job.title" (click)="cancel(job)">give up</button>
              }
              @if (job.state === 'done') {
                <button type="button" class="text-button" [attr.aria-label]="'Save the picture of ' + job.title" (click)="save(job)">
                  <brelvin-icon name="download" /> save the picture
                </button>
              }
            </p>
          </div>
        </article>
      } @empty {
        @if (list.jobs()) {
          <p class="hint">
            Nothing was asked for yet. On the Bench, view → Still → “have a worker draw it” has a picture drawn apart from the page: as
            large as 8,192 pixels, while work goes on.
          </p>
        } @else if (!list.failure()) {
          <p class="hint" role="status">Looking …</p>
        }
      }
    </main>
    <brelvin-notice-list />
  `,
})
export class JobsPage {
  protected readonly list = inject(JobsList);
  private readonly api = inject(JobApi);
  private readonly faults = inject(FaultHandler);
  protected readonly states = STATES;

  protected percent({ progress }: Job): number {
    return Math.round(progress * 100);
  }

  protected async cancel({ id, title }: Job): Promise<void> {
    await this.list.cancel(id).catch((error: unknown) => this.faults.report(`“${title}” was not given up`, error));
  }

  protected async save({ asset, title }: Job): Promise<void> {
    if (asset === undefined) return;
    try {
      download(await this.api.result(asset), `${title}.png`);
    } catch (error) {
      this.faults.report(`The picture of “${title}” cannot be had`, error);
    }
  }
}
