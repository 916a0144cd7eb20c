export interface Cluster {
  url: string;
  ended: Promise<unknown>;
  stop(): Promise<void>;
}
export function startCluster(options: {
  folder: string;
  port: number;
  isThrowaway?: boolean;
  log?: (text: string) => void;
}): Promise<Cluster>;
export function isListening(port: number, host?: string): Promise<boolean>;
