import { ChangeDetectionStrategy, Component, inject, ViewEncapsulation } from '@angular/core';
import { Icon } from '../icons/icon';
import { Notices, type Notice, type NoticeAction } from './notices';

/** The notices, one above the other, in a place of their own: they cover no control and no picture. */
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
      display: block;
      max-height: 40vh;
      overflow-y: auto;
    }
    .notices-over {
      position: absolute;
      /* Above the bar below the picture: it covers no button. */
      inset: auto 0 29px;
      z-index: 1;
    }
    .notice {
      display: flex;
      align-items: center;
      gap: 10px;
      padding: 4px 10px;
      border-top: 1px solid var(--line);
      background: var(--raised);
    }
    .notice-words {
      flex: 1;
      overflow-wrap: anywhere;
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
