export interface Cluster {
  url: string;
  pid: number;
  ended: Promise<string>;
  stop(): Promise<void>;
}
export function startCluster(options: {
  folder: string;
  port: number;
  isThrowaway?: boolean;
  log?: (text: string) => void;
  signal?: AbortSignal;
}): Promise<Cluster>;
export function isListening(port: number, host?: string): Promise<boolean>;
export function isProcess(pid: number, name: string): boolean;
export function binaries(): string;
export function makePrivate(folder: string): void;
