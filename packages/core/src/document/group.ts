import type { Graph, InletValue } from './graph';
import type { RibbonType } from './ribbon-types';

/** A place where a ribbon enters a group, or leaves it. */
export interface GroupPort {
  readonly label: string;
  readonly type: RibbonType;
  readonly order: number;
  /** What an open inlet gives; without it the nodes inside take their own values. */
  readonly value?: InletValue;
  readonly low?: number;
  readonly high?: number;
}

/**
 * A graph inside a graph, which any number of nodes of kind `group` stand for. Inside, what comes in runs from
 * the node `entry`, by inlet id, and what goes out runs into `dock`, by outlet id.
 */
export interface NodeGroup {
  readonly title: string;
  readonly help: string;
  /** Computed once for each light of the rig; what leaves is the sum. */
  readonly eachLight?: boolean;
  readonly inlets: Readonly<Record<string, GroupPort>>;
  readonly outlets: Readonly<Record<string, GroupPort>>;
  readonly graph: Graph;
}
