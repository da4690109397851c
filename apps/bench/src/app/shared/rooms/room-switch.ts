import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { ROOMS, Rooms } from './rooms';

@Component({
  selector: 'brelvin-room-switch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="choices" role="radiogroup" aria-label="Room: the grey around the picture">
      @for (room of all; track room.id) {
        <button
          type="button"
          role="radio"
          class="choice"
          [attr.aria-checked]="rooms.room() === room.id"
          [title]="'Work in the ' + room.label.toLowerCase() + ' room'"
          (click)="rooms.choose(room.id)"
        >
          {{ room.label }}
        </button>
      }
    </div>
  `,
})
export class RoomSwitch {
  protected readonly rooms = inject(Rooms);
  protected readonly all = ROOMS;
}
