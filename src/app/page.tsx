import { ContactSheet } from "@/features/contact-sheet/ContactSheet";
import { db } from "@/server/db";
import { listPictures } from "@/server/pictures/pictures";
import { listPrints } from "@/server/prints/prints";

export const dynamic = "force-dynamic";
export const metadata = { title: { absolute: "Contact sheet · Nigrographe" } };

export default async function Page() {
  const sql = db();
  const [pictures, prints] = await Promise.all([listPictures(sql), listPrints(sql)]);
  return <ContactSheet pictures={pictures} prints={prints} />;
}
