export interface Cluster {
  readonly url: string;
  readonly port: number;
  readonly pid: number;
  readonly folder: string;
  urlOf(database: string): string;
  createDatabase(name: string): void;
  stop(): void;
}
export function postgresPrograms(): string | null;
export function freePort(wanted: number): Promise<number>;
export function startCluster(folder: string, wantedPort?: number): Promise<Cluster>;
