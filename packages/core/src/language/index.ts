export { elaborate, elaborateAll, type ElaboratedSource } from './elaborate';
export { formatDiagnostic, nearestName, type Diagnostic } from './diagnostics';
export type { Documentation } from './documentation';
export { tokensOf } from './tokens-of';
