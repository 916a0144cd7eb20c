import { ContactSheet } from "@/features/contact-sheet/ContactSheet";
import { SignOut } from "@/features/sign-in/SignOut";
import { hasPassphrase } from "@/server/access/passphrase";
import { db } from "@/server/db";
import { listPictures } from "@/server/pictures/pictures";
import { listPrints } from "@/server/prints/prints";

export const dynamic = "force-dynamic";
export const metadata = { title: { absolute: "Contact sheet · Nigrographe" } };

export default async function Page() {
  const sql = db();
  const [pictures, prints, isGuarded] = await Promise.all([listPictures(sql), listPrints(sql), hasPassphrase(sql)]);
  return <ContactSheet pictures={pictures} prints={prints} aside={isGuarded ? <SignOut /> : null} />;
}
