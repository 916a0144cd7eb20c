import { writeFile } from "node:fs/promises";
import { planJsonSchema } from "@/contracts/plan";

// Publishes the plan's JSON Schema.
await writeFile("docs/plan.schema.json", `${JSON.stringify(planJsonSchema(), null, 2)}\n`);
