/** A PostgreSQL cluster of our own on loopback. */
export class Cluster {
  constructor(folder: string, options?: { throwaway?: boolean });
  readonly folder: string;
  port: number;
  readonly url: string;
  start(wantedPort?: number): Promise<string>;
  launch(): void;
  stop(mode?: 'fast' | 'smart' | 'immediate'): void;
  /** The postmaster's process id. */
  pid(): number;
  isRunning(): boolean;
  remove(): void;
}
export function clusterFolder(name: string): string;
export function freePort(): Promise<number>;
