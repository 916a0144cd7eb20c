import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { cache } from "react";
import { z } from "zod";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import { BenchEntry } from "@/features/bench/BenchEntry";
import { db, type Sql } from "@/server/db";
import { AppError } from "@/server/errors";
import { getPicture, pictureBlob } from "@/server/pictures/pictures";
import { preparedFolder } from "@/server/pictures/preparedFolder";
import { getPrint, getRevision, isLargePlan, listPrints, listRevisions } from "@/server/prints/prints";

export const dynamic = "force-dynamic";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const start = await load((await params).id);
  return { title: start ? start.picture.name : "Not here" };
}

export default async function Page({ params }: Props) {
  const start = await load((await params).id);
  if (!start) notFound();
  return <BenchEntry key={start.print.id} start={start} />;
}

/** A plan that goes into the page; undefined for one of thousands of strokes, which the page fetches, made ready by a thread. */
async function smallPlan(sql: Sql, id: string, head: string) {
  return (await isLargePlan(sql, id, head)) ? undefined : (await getRevision(sql, id, head)).plan;
}

/** Once for the page and its title. */
const load = cache(async (id: string) => {
  if (!z.uuid().safeParse(id).success) return undefined;
  const sql = db();
  try {
    const print = await getPrint(sql, id);
    const [picture, prints, revisions, plan, blobId] = await Promise.all([
      getPicture(sql, print.pictureId),
      listPrints(sql, print.pictureId),
      listRevisions(sql, id),
      smallPlan(sql, id, print.head),
      pictureBlob(sql, print.pictureId),
    ]);
    const { width, height, levels } = await preparedFolder(sql, blobId);
    const prepared: PreparedPicture = { width, height, levels };
    return { picture, prints, prepared, print, revisions, plan };
  } catch (error) {
    if (error instanceof AppError && error.code === "not_found") return undefined;
    throw error;
  }
});
