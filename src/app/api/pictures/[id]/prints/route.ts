import { NewPrint } from "@/contracts/api";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { db } from "@/server/db";
import { A_PLAN, readBody, readId, routes } from "@/server/http";
import { getPicture } from "@/server/pictures/pictures";
import { addPrint } from "@/server/prints/prints";

export const { GET, POST, PUT, PATCH, DELETE } = routes<{ id: string }>({
  POST: async (request, { id }) => {
    const { name, plan } = await readBody(request, NewPrint, A_PLAN);
    const pictureId = readId(id);
    const first = plan ?? defaultPlan((await getPicture(db(), pictureId)).facts.format);
    return Response.json(await addPrint(db(), pictureId, first, name), { status: 201 });
  },
});
