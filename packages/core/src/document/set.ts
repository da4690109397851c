import type { MeshCopies, MeshMotion, MeshPlacing, SetFloor } from '@brelvin/contract';

export const IN_PLACE: MeshPlacing = { position: [0, 0, 0], turn: [0, 0, 0], scale: [1, 1, 1] };
export const STILL: MeshMotion = { kind: 'still', axis: 'y', speed: 0.1, angle: 0.5 };
export const ONE_COPY: MeshCopies = { columns: 1, rows: 1, spacing: 2.5 };
export const NO_FLOOR: SetFloor = { shown: false, height: -1, size: 12 };
