export function connection(url: string): { address: string; env: NodeJS.ProcessEnv };
