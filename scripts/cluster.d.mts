export interface Cluster {
  readonly folder: string
  readonly pid: number | undefined
  url(database?: string): string
  stop(): Promise<void>
}
export function startCluster(
  wanted: string,
  settings?: string[],
  options?: { port?: number },
): Promise<Cluster>
export function freePort(): Promise<number>
export function isAlive(pid: number): boolean
export function removeCluster(folder: string): void
export function binary(name: string): string
