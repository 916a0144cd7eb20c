"use client";
import { App, Button } from "antd";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState, type ReactNode } from "react";
import { BIN_DAYS, MOST_BINNED, type Binned } from "@/contracts/bin";
import { askServer } from "../shared/askServer";
import { SheetHelp } from "../shared/SheetHelp";
import styles from "./BinSheet.module.css";

const DAY_MS = 86_400_000;
const DATE = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "long" });
const pathOf = ({ kind, id }: Binned) => `/api/${kind}s/${id}`;

/** What was deleted: to bring back, or to delete for good. */
export function BinSheet({ binned, aside }: { binned: readonly Binned[]; aside: ReactNode }) {
  const { modal, message } = App.useApp();
  const router = useRouter();
  const [isBusy, setBusy] = useState(false);
  const ask = async (words: string, ...request: Parameters<typeof askServer>) => {
    setBusy(true);
    const done = await askServer(...request);
    setBusy(false);
    if (done) void message.info(words);
    else void message.error("That could not be done just now. Nothing was deleted; try again in a moment.");
    router.refresh();
  };
  const confirm = (title: string, content: string, onOk: () => Promise<void>) =>
    void modal.confirm({
      icon: null,
      title,
      content,
      okText: "Delete for good",
      okButtonProps: { danger: true },
      autoFocusButton: "cancel",
      onOk,
    });
  const deleteForGood = (thing: Binned) =>
    confirm(`Delete ${thing.name} for good?`, `${goesWith(thing)} This cannot be undone.`, () =>
      ask(`${thing.name} is deleted for good.`, "DELETE", pathOf(thing)),
    );
  const empty = () =>
    confirm("Empty the bin?", "All that lies in it is deleted for good, with its prints and their history. This cannot be undone.", () =>
      ask("The bin is empty.", "DELETE", "/api/bin"),
    );
  return (
    <div className={styles.page}>
      <header className={styles.bar}>
        <Link href="/" className={styles.mark}>
          Nigrographe
        </Link>
        <nav className={styles.crumb} aria-label="Where you are">
          <Link href="/">Contact sheet</Link>
          <span aria-current="page">Bin</span>
        </nav>
        <span className={styles.end}>
          <Button disabled={binned.length === 0 || isBusy} onClick={empty}>
            Empty the bin…
          </Button>
          <SheetHelp />
          {aside}
        </span>
      </header>
      <main className={styles.sheet}>
        <h1>Bin</h1>
        <p className={styles.words}>
          {binned.length === 0
            ? "Nothing lies here. Pictures and prints that you delete wait here for " + BIN_DAYS + " days."
            : `What you delete waits here for ${BIN_DAYS} days and can be brought back as it was. Only from here it is deleted for good.`}
          {binned.length === MOST_BINNED && ` The newest ${MOST_BINNED} are shown.`}
        </p>
        <ul className={styles.things}>
          {binned.map((thing) => (
            <li key={thing.id} data-testid="binned">
              <span className={styles.easel}>
                {thing.shown && (
                  // eslint-disable-next-line @next/next/no-img-element -- already the right size
                  <img src={`/api/prints/${thing.shown.print}/thumbnail?revision=${thing.shown.head}`} alt="" />
                )}
              </span>
              <span className={styles.what}>
                <b>{thing.kind === "picture" ? thing.name : `${thing.name} of ${thing.pictureName}`}</b>
                <span suppressHydrationWarning>
                  {goesWith(thing)} Here until {DATE.format(new Date(thing.deletedAt).getTime() + BIN_DAYS * DAY_MS)}.
                </span>
              </span>
              <Button
                disabled={isBusy}
                aria-label={`Bring back ${thing.name}`}
                onClick={() => void ask(`${thing.name} is back on the contact sheet.`, "PATCH", pathOf(thing), { deleted: false })}
              >
                Bring back
              </Button>
              <Button
                type="text"
                danger
                disabled={isBusy}
                aria-label={`Delete for good… ${thing.name}`}
                onClick={() => deleteForGood(thing)}
              >
                Delete for good…
              </Button>
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
}

function goesWith({ kind, prints }: Binned): string {
  if (kind === "print") return "A print, with its history.";
  return prints === 0 ? "A picture without prints." : `A picture with ${prints === 1 ? "its print" : `its ${prints} prints`}.`;
}
