import { NewPrint } from "@/contracts/api";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { db } from "@/server/db";
import { readBody, readId, route } from "@/server/http";
import { addPrint } from "@/server/prints/prints";

export const POST = route<{ id: string }>(async (request, { id }) => {
  const { name, plan } = await readBody(request, NewPrint);
  return Response.json(await addPrint(db(), readId(id), plan ?? defaultPlan(), name), { status: 201 });
});
