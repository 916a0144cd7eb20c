import { clearBin, readBin } from "@/server/bin/bin";
import { db } from "@/server/db";
import { routes } from "@/server/http";

export const { GET, POST, PUT, PATCH, DELETE } = routes({
  GET: async () => Response.json(await readBin(db())),
  /** Empties it. */
  DELETE: async () => Response.json(await db().begin((tx) => clearBin(tx, {}))),
});
