import { notFound } from "next/navigation";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import { TwoViews } from "@/features/picture-view/TwoViews";
import { db } from "@/server/db";
import { getPicture, pictureBlob } from "@/server/pictures/pictures";
import { preparedFolder } from "@/server/pictures/preparedFolder";
import { getPrint, getRevision } from "@/server/prints/prints";
import { settings } from "@/server/settings";

export const dynamic = "force-dynamic";

type Props = { searchParams: Promise<{ prints?: string }> };

/** Prints side by side, by their ids with commas between: a page for tests alone. */
export default async function Page({ searchParams }: Props) {
  const { prints = "" } = await searchParams;
  if (!settings().servesTestPages || !prints) notFound();
  return <TwoViews shown={await Promise.all(prints.split(",").map(load))} />;
}

async function load(id: string) {
  const sql = db();
  const print = await getPrint(sql, id);
  const [{ name }, { plan }, blobId] = await Promise.all([
    getPicture(sql, print.pictureId),
    getRevision(sql, id, print.head),
    pictureBlob(sql, print.pictureId),
  ]);
  const { width, height, levels } = await preparedFolder(sql, blobId);
  const picture: PreparedPicture = { width, height, levels };
  return { pictureId: print.pictureId, name, picture, plan };
}
