import { Injectable, signal } from '@angular/core';
import { PAGE_DEVICES, type PageDeviceName } from '@brelvin/devices';

const KEY = 'brelvin.device';

/** Which device is to draw: what the page's address asks for, else what was chosen last, else the better one. */
@Injectable({ providedIn: 'root' })
export class DeviceChoice {
  private readonly chosen = signal(known(new URLSearchParams(location.search).get('device')) ?? kept() ?? PAGE_DEVICES[0]);

  readonly wished = this.chosen.asReadonly();

  /** From now on, and in this browser. */
  choose(name: PageDeviceName): void {
    this.chosen.set(name);
    try {
      localStorage.setItem(KEY, name);
    } catch {
      // Without storage the choice lasts as long as the page.
    }
  }
}

function kept(): PageDeviceName | undefined {
  try {
    return known(localStorage.getItem(KEY));
  } catch {
    return undefined;
  }
}

function known(name: string | null): PageDeviceName | undefined {
  return PAGE_DEVICES.find((each) => each === name);
}
