/** Keeps a thing under its key as the newest, and at most so many: the oldest go first. */
export function keepNewest<K, T>(kept: Map<K, T>, key: K, value: T, most: number): void {
  kept.delete(key);
  kept.set(key, value);
  for (const oldest of kept.keys()) {
    if (kept.size <= most) break;
    kept.delete(oldest);
  }
}
