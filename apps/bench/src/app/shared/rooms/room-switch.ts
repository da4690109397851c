import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Choices } from '../controls/choices';
import { ROOMS, Rooms } from './rooms';

@Component({
  selector: 'brelvin-room-switch',
  imports: [Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <brelvin-choices label="Room: the grey around the picture" [options]="all" [value]="rooms.room()" (chosen)="rooms.choose($event)" />
  `,
})
export class RoomSwitch {
  protected readonly rooms = inject(Rooms);
  protected readonly all = ROOMS.map(({ id, label }) => ({ value: id, words: label, help: `Work in the ${label.toLowerCase()} room` }));
}
