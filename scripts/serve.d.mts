import type { ChildProcess } from 'node:child_process'

export interface RunningServer {
  readonly address: string
  readonly child: ChildProcess
  stop(): Promise<void>
  onEnd(listener: () => void): void
}
export function startServer(
  entry: string,
  env: Record<string, string | number>,
  options?: { quiet?: boolean },
): Promise<RunningServer>
