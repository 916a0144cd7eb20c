import { join, resolve } from "node:path";
import { z } from "zod";

/** Every setting with its default and what it is for; `./start --help` lists these. */
export const SETTINGS = {
  PORT: { fallback: "3210", meaning: "port the application is served on" },
  HOST: { fallback: "127.0.0.1", meaning: "address it listens on" },
  NIGROGRAPHE_HOSTS: { fallback: "", meaning: "names it is reached by besides localhost, with commas between" },
  NIGROGRAPHE_DATA: { fallback: "data", meaning: "folder for the database and the cache of decoded pictures" },
  NIGROGRAPHE_CACHE_GB: { fallback: "20", meaning: "decoded pictures kept at hand, in gigabytes; the least used go first" },
  NIGROGRAPHE_DB_PORT: { fallback: "54329", meaning: "port of the database started for it" },
  NIGROGRAPHE_THREADS: { fallback: "2", meaning: "threads of one export" },
  NIGROGRAPHE_TEST_PAGES: { fallback: "0", meaning: "1 serves the pages that only tests drive" },
  DATABASE_URL: { fallback: "", meaning: "another PostgreSQL to use instead of starting one" },
} as const;

const Settings = z
  .object({
    DATABASE_URL: z.string().regex(/^postgres(ql)?:\/\//, "must be a postgres:// address"),
    NIGROGRAPHE_DATA: z.string().min(1).default(SETTINGS.NIGROGRAPHE_DATA.fallback),
    HOST: z.string().default(SETTINGS.HOST.fallback),
    NIGROGRAPHE_HOSTS: z.string().default(SETTINGS.NIGROGRAPHE_HOSTS.fallback),
    NIGROGRAPHE_CACHE_GB: z.coerce.number().min(0).default(20),
    NIGROGRAPHE_THREADS: z.coerce.number().int().min(1).max(64).default(2),
    NIGROGRAPHE_TEST_PAGES: z.enum(["0", "1"]).default("0"),
  })
  .transform((env) => ({
    databaseUrl: env.DATABASE_URL,
    cacheFolder: join(resolve(env.NIGROGRAPHE_DATA), "cache"),
    cacheBytes: env.NIGROGRAPHE_CACHE_GB * 1024 ** 3,
    threads: env.NIGROGRAPHE_THREADS,
    servesTestPages: env.NIGROGRAPHE_TEST_PAGES === "1",
    hosts: new Set([env.HOST, ...env.NIGROGRAPHE_HOSTS.split(",")].map((name) => name.trim().toLowerCase()).filter(Boolean)),
  }));

export type Settings = z.infer<typeof Settings>;

let read: Settings | undefined;

/** The settings from the environment. Errors: one plain Error naming every variable that is wrong. */
export function settings(): Settings {
  if (read) return read;
  const result = Settings.safeParse(process.env);
  if (!result.success) {
    throw new Error(`settings: ${result.error.issues.map((issue) => `${issue.path.join(".")} ${issue.message}`).join("; ")}`);
  }
  return (read = result.data);
}

/** Where the decoded levels of originals lie, a folder each. */
export const pictureFolder = () => join(settings().cacheFolder, "pictures");

/** Where small JPEGs lie. */
export const thumbnailFolder = () => join(settings().cacheFolder, "thumbnails");
