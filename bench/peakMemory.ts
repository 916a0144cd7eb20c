import { readFileSync } from "node:fs";

/**
 * The most memory that this process held at a time, in MB. Not from its resource usage: a process that was started by a large one is told
 * that one's peak as its own.
 */
export function peakMemory(): number {
  return Number(/VmHWM:\s*(\d+) kB/.exec(readFileSync("/proc/self/status", "utf8"))![1]) / 1024;
}
