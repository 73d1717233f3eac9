export interface Cluster {
  readonly url: string;
  readonly port: number;
  readonly pid: number;
  urlOf(database: string): string;
  stop(): void;
}
export function postgresPrograms(): string | null;
export function freePort(wanted: number): Promise<number>;
export function runningCluster(folder: string): string;
export function startCluster(folder: string, wantedPort?: number, options?: { createdb?: boolean }): Promise<Cluster>;
