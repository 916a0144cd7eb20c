import type { ChildProcess } from "node:child_process";

export interface Part {
  ended: Promise<string>;
  stop(): Promise<void>;
}
export function supervise(options: {
  name: string;
  start(signal: AbortSignal): Promise<Part>;
  say(text: string): void;
  giveUp(reason: string): void;
  isDone?(reason: string): boolean;
  hopeless?(reason: string): string | undefined;
  within?: number;
  waits?: number[];
}): { end: Promise<boolean>; stop(): Promise<void> };
export function endProcess(child: ChildProcess, ended: Promise<unknown>, steps: [NodeJS.Signals, number][]): Promise<void>;
export function endOf(child: ChildProcess): Promise<string>;
