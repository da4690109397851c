import { ChangeDetectionStrategy, Component, inject, ViewEncapsulation } from '@angular/core';
import { Icon } from '../icons/icon';
import { Notices, type Notice, type NoticeAction } from './notices';

/** The notices, one above the other, out of the way of pictures. */
@Component({
  selector: 'brelvin-notice-list',
  imports: [Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'notices' },
  template: `
    @for (notice of notices.shown(); track notice.id) {
      <div class="notice" role="status">
        <span class="notice-words">{{ notice.words }}{{ notice.times > 1 ? ' (' + notice.times + ' times)' : '' }}</span>
        @if (notice.share !== undefined) {
          <progress max="1" [value]="notice.share" [attr.aria-label]="notice.words"></progress>
        }
        @for (action of notice.actions; track action.words) {
          <button type="button" class="bar-button" (click)="run(notice, action)">{{ action.words }}</button>
        }
        @if (notice.share === undefined) {
          <button type="button" class="bar-button" aria-label="Close the notice" (click)="notices.close(notice.id)">
            <brelvin-icon name="close" />
          </button>
        }
      </div>
    }
  `,
  styles: `
    .notices {
      position: fixed;
      left: 12px;
      bottom: 252px;
      z-index: 61;
      display: grid;
      gap: 4px;
      justify-items: start;
      pointer-events: none;
    }
    .notice {
      pointer-events: auto;
      display: flex;
      align-items: center;
      gap: 10px;
      max-width: min(720px, calc(100vw - 520px));
      padding: 6px 10px;
      border: 1px solid var(--line);
      background: var(--raised);
    }
    .notice-words {
      overflow-wrap: anywhere;
      max-height: 40vh;
      overflow-y: auto;
    }
    @media (max-width: 1000px) {
      .notice {
        max-width: calc(100vw - 24px);
      }
    }
  `,
  encapsulation: ViewEncapsulation.None,
})
export class NoticeList {
  protected readonly notices = inject(Notices);

  protected run({ id, share }: Notice, action: NoticeAction): void {
    if (share === undefined) this.notices.close(id);
    action.run();
  }
}
