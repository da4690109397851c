import { Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Tabs, type Tab } from './tabs';

@Component({
  imports: [Tabs],
  template: `<brelvin-tabs label="Panels" [tabs]="tabs" [(shown)]="shown" />`,
})
class Host {
  readonly tabs: readonly Tab<'one' | 'two' | 'three'>[] = [
    { value: 'one' },
    { value: 'two', words: 'second', help: 'The second' },
    { value: 'three' },
  ];
  readonly shown = signal<'one' | 'two' | 'three'>('one');
}

describe('Tabs', () => {
  async function open(): Promise<{ host: Host; tabs: HTMLElement[]; press: (key: string) => Promise<void> }> {
    const fixture = TestBed.createComponent(Host);
    document.body.append(fixture.nativeElement as HTMLElement);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const press = async (key: string): Promise<void> => {
      element
        .querySelector('[aria-selected="true"]')
        ?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      await fixture.whenStable();
    };
    return { host: fixture.componentInstance, tabs: [...element.querySelectorAll<HTMLElement>('[role="tab"]')], press };
  }

  it('say which one holds, and are one stop of the tab key', async () => {
    const { tabs } = await open();
    expect(tabs.map((tab) => [tab.textContent?.trim(), tab.getAttribute('aria-selected'), tab.tabIndex])).toEqual([
      ['one', 'true', 0],
      ['second', 'false', -1],
      ['three', 'false', -1],
    ]);
    expect(tabs[1]?.title).toBe('The second');
  });

  it('go round by arrow keys, the focus with them', async () => {
    const { host, tabs, press } = await open();
    await press('ArrowRight');
    expect(host.shown()).toBe('two');
    expect(document.activeElement).toBe(tabs[1] ?? null);
    await press('ArrowLeft');
    await press('ArrowLeft');
    expect(host.shown()).toBe('three');
    await press('a');
    expect(host.shown()).toBe('three');
  });

  it('change by a press', async () => {
    const { host, tabs } = await open();
    tabs[2]?.click();
    expect(host.shown()).toBe('three');
  });
});
