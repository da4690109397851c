import { Injectable, type OnDestroy } from '@angular/core';
import { type DocumentNews, type JobNews, type Told, type Watch } from '@brelvin/contract';
import { Observable, Subject } from 'rxjs';

const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 15_000;

/** Hears from the server what another window did to documents. Comes back by itself. */
@Injectable({ providedIn: 'root' })
export class LiveChannel implements OnDestroy {
  private readonly told = new Subject<Partial<DocumentNews>>();
  private socket?: WebSocket;
  private watched: readonly string[] = [];
  private watchedJobs: readonly string[] = [];
  private readonly jobsTold = new Subject<Partial<JobNews>>();
  private retryAfter = FIRST_RETRY_MS;
  private timer?: ReturnType<typeof setTimeout>;
  private wasAway = false;
  private readonly shelvesTold = new Subject<void>();
  private shelfWatchers = 0;

  /** How the jobs that are watched go on; without an id, any may have. */
  readonly jobs = this.jobsTold.asObservable();
  /** What happened to documents elsewhere; without an id, to any. */
  readonly news = this.told.asObservable();
  /** Something was made, changed, deleted or restored; told once a second at most, while somebody listens. */
  readonly shelves = new Observable<void>((listener) => {
    const heard = this.shelvesTold.subscribe(listener);
    this.shelfWatchers++;
    this.tune();
    return () => {
      heard.unsubscribe();
      this.shelfWatchers--;
      this.tune();
    };
  });

  /** Names the documents to hear of. */
  watch(ids: readonly string[]): void {
    this.watched = ids;
    this.tune();
  }

  /** Names the jobs to hear of. */
  watchJobs(ids: readonly string[]): void {
    this.watchedJobs = ids;
    this.tune();
  }

  /** Open while somebody wants to hear, and told what. */
  private tune(): void {
    if (this.watched.length + this.watchedJobs.length + this.shelfWatchers === 0) this.close();
    else if (!this.socket) this.open();
    else if (this.socket.readyState === WebSocket.OPEN) this.say();
  }

  ngOnDestroy(): void {
    this.close();
  }

  private open(): void {
    clearTimeout(this.timer);
    const socket = new WebSocket(`${location.protocol === 'https:' ? 'wss' : 'ws'}://${location.host}/api/live`);
    this.socket = socket;
    socket.onopen = () => {
      this.retryAfter = FIRST_RETRY_MS;
      this.say();
      // Steps may have been missed meanwhile.
      if (this.wasAway) this.missed();
      this.wasAway = false;
    };
    socket.onmessage = ({ data }: MessageEvent<string>) => {
      const told = JSON.parse(data) as Told;
      if ('again' in told) this.missed();
      else if ('shelves' in told) this.shelvesTold.next();
      else if ('job' in told) this.jobsTold.next(told);
      else this.told.next(told);
    };
    socket.onclose = () => {
      if (this.socket !== socket) return;
      this.socket = undefined;
      this.wasAway = true;
      this.timer = setTimeout(() => this.open(), this.retryAfter);
      this.retryAfter = Math.min(this.retryAfter * 2, LONGEST_RETRY_MS);
    };
  }

  private missed(): void {
    this.told.next({});
    this.jobsTold.next({});
    this.shelvesTold.next();
  }

  private say(): void {
    const wanted: Watch = { watch: this.watched, jobs: this.watchedJobs, ...(this.shelfWatchers > 0 ? { shelves: true } : {}) };
    this.socket?.send(JSON.stringify(wanted));
  }

  private close(): void {
    clearTimeout(this.timer);
    const { socket } = this;
    this.socket = undefined;
    socket?.close();
  }
}
