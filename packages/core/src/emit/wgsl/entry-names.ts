import type { Stage } from '../../ir/program';

/** What a device calls a stage by. */
export const ENTRY_POINTS: Readonly<Record<Stage, string>> = { vertex: 'vertexStage', fragment: 'fragmentStage' };

/** Names that stand outside of functions besides the program's own. */
export const ENTRY_NAMES: readonly string[] = [...Object.values(ENTRY_POINTS), 'StageInput', 'StageOutput'];
