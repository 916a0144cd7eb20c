import { BinSheet } from "@/features/bin/BinSheet";
import { SignOut } from "@/features/sign-in/SignOut";
import { hasPassphrase } from "@/server/access/passphrase";
import { readBin } from "@/server/bin/bin";
import { db } from "@/server/db";

export const dynamic = "force-dynamic";
export const metadata = { title: "Bin" };

export default async function Page() {
  const sql = db();
  const [binned, isGuarded] = await Promise.all([readBin(sql), hasPassphrase(sql)]);
  return <BinSheet binned={binned} aside={isGuarded ? <SignOut /> : null} />;
}
