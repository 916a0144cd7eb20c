import { HeadMove } from "@/contracts/api";
import { db } from "@/server/db";
import { readBody } from "@/server/body";
import { readId, routes } from "@/server/http";
import { moveHead } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  PUT: async (request, { id }) => {
    await moveHead(db(), readId(id), await readBody(request, HeadMove));
    return new Response(null, { status: 204 });
  },
});
