import type { ChildProcess } from "node:child_process";

export interface Part {
  ended: Promise<string>;
  stop(): Promise<void>;
}
export function supervise(options: {
  name: string;
  start(): Promise<Part>;
  say(text: string): void;
  giveUp(reason: string): void;
  within?: number;
  waits?: number[];
}): { stop(): Promise<void> };
export function endProcess(child: ChildProcess, ended: Promise<unknown>, steps: [NodeJS.Signals, number][]): Promise<void>;
export function endOf(child: ChildProcess): Promise<string>;
