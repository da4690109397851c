import { Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import type { Point } from './card-layout';

/** Which part of the graph is seen: screen = graph × zoom + offset, in CSS pixels of the surface. */
export interface ViewTransform {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

const SMALLEST = 0.03;
const LARGEST = 2.5;

/** What is seen and selected of the graph; not part of the document, and not undone. */
@Injectable()
export class GraphView {
  private readonly remembered = new Map<string, ViewTransform>();
  private at = '';
  /** Asks the surface to show all of what was just entered. */
  readonly fresh = new Subject<void>();
  readonly selection = signal<ReadonlySet<string>>(new Set());
  private current: ViewTransform = { x: 0, y: 0, zoom: 1 };
  /** Somebody has already looked round in it. */
  touched = false;
  private readonly moved = new Subject<ViewTransform>();
  /** Pan and zoom, as they happen; outside of change detection. */
  readonly moves = this.moved.asObservable();

  get transform(): ViewTransform {
    return this.current;
  }

  set(transform: ViewTransform): void {
    this.current = transform;
    this.touched = true;
    this.moved.next(transform);
  }

  panBy(dx: number, dy: number): void {
    this.set({ ...this.current, x: this.current.x + dx, y: this.current.y + dy });
  }

  /** Zooms so that the graph under `at` (surface pixels) stays where it is. */
  zoomAt(at: Point, factor: number): void {
    const { x, y, zoom } = this.current;
    const next = Math.min(Math.max(zoom * factor, SMALLEST), LARGEST);
    const applied = next / zoom;
    this.set({ x: at.x - (at.x - x) * applied, y: at.y - (at.y - y) * applied, zoom: next });
  }

  toGraph({ x, y }: Point): Point {
    return { x: (x - this.current.x) / this.current.zoom, y: (y - this.current.y) / this.current.zoom };
  }

  toScreen({ x, y }: Point): Point {
    return { x: x * this.current.zoom + this.current.x, y: y * this.current.zoom + this.current.y };
  }

  /** Goes to another graph; one that was seen before is seen as it was left. */
  enter(key: string): void {
    this.remembered.set(this.at, this.current);
    this.at = key;
    const known = this.remembered.get(key);
    if (known) this.set(known);
    else {
      this.touched = false;
      this.fresh.next();
    }
  }

  select(ids: Iterable<string>): void {
    this.selection.set(new Set(ids));
  }

  toggle(id: string): void {
    const next = new Set(this.selection());
    if (!next.delete(id)) next.add(id);
    this.selection.set(next);
  }
}
