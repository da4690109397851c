import type { InletAddress } from '@brelvin/core';
import type { Point } from '../editors/card-layout';
import { overlaps } from './graph-shapes';
import type { PlacedGraph } from '../editors/placed-graph';

/** What of the graph lies under the pointer, as far as the page knows it. */
export interface SurfaceHit {
  readonly port?: HTMLElement;
  /** A box whose corner is held. */
  readonly corner?: string;
  readonly card?: string;
  readonly remark?: string;
  /** The inlet of the row of a card. */
  readonly inlet?: InletAddress;
  /** Something on a card that has the pointer for itself. */
  readonly control: boolean;
}

export function hitOf(target: Element): SurfaceHit {
  const { card, remark } = target.closest<HTMLElement>('[data-card], [data-remark]')?.dataset ?? {};
  const inlet = target.closest('.card-row')?.querySelector<HTMLElement>('.port[data-inlet]')?.dataset['inlet'];
  return {
    port: target.closest<HTMLElement>('.port') ?? undefined,
    corner: target.closest<HTMLElement>('[data-resize]')?.dataset['resize'],
    card,
    remark,
    inlet: card !== undefined && inlet !== undefined ? { node: card, inlet } : undefined,
    control: target.closest('.port, .card-control') !== null,
  };
}

/** The card at a place of the graph, where cards are only drawn. */
export function drawnCardAt({ cards }: PlacedGraph, at: Point): string | undefined {
  const spot = { ...at, width: 1, height: 1 };
  return [...cards.values()].find(({ box }) => overlaps(box, spot))?.id;
}
