import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll } from "vitest";

/** A folder of this test file's own, cleared away after it. */
export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), "nigrographe-test-"));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  return folder;
}
