import type { Point } from '../../editors/card-layout';
import type { RibbonShape } from '../ribbon-painter';
import type { Rectangle } from '../../editors/placed-graph';

/** What a drag on the graph does, from the press to the release. Places are on the screen, from the surface's corner. */
export interface Gesture {
  move(at: Point, event: PointerEvent): void;
  /** The pointer was let go of. */
  end(at: Point, event: PointerEvent): void;
  /** Nothing shall have happened. */
  cancel(): void;
  /** A ribbon to draw while it is carried. */
  readonly carried?: RibbonShape;
  /** A frame to draw while it is drawn up. */
  readonly frame?: Rectangle;
}
