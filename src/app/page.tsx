import { SheetRequest } from "@/contracts/contactSheet";
import { ContactSheet } from "@/features/contact-sheet/ContactSheet";
import { SignOut } from "@/features/sign-in/SignOut";
import { hasPassphrase } from "@/server/access/passphrase";
import { db } from "@/server/db";
import { readSheet } from "@/server/pictures/contactSheet";

export const dynamic = "force-dynamic";
export const metadata = { title: { absolute: "Contact sheet · Nigrographe" } };

type Props = { searchParams: Promise<Record<string, string | string[] | undefined>> };

export default async function Page({ searchParams }: Props) {
  const sql = db();
  const { search, order } = await searchParams;
  // An address that means nothing to us shows all.
  const asked = SheetRequest.safeParse({ search, order }).data ?? SheetRequest.parse({});
  const [first, isGuarded] = await Promise.all([readSheet(sql, asked), hasPassphrase(sql)]);
  return <ContactSheet asked={asked} first={first} aside={isGuarded ? <SignOut /> : null} />;
}
