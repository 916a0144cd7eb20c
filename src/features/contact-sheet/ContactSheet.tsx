"use client";
import { Button, Input, Select } from "antd";
import Link from "next/link";
import { useEffect, type ReactNode } from "react";
import { useDropzone } from "react-dropzone";
import type { SheetOrder, SheetPage, SheetRequest } from "@/contracts/contactSheet";
import { SheetHelp } from "../shared/SheetHelp";
import { SkipLinks } from "../shared/SkipLinks";
import { CardRows } from "./CardRows";
import { ImportList } from "./ImportList";
import { PictureCard } from "./PictureCard";
import { useImports } from "./useImports";
import { useSheet } from "./useSheet";
import styles from "./ContactSheet.module.css";

const ORDERS: Record<SheetOrder, string> = { newest: "Newest first", name: "By name", rating: "Best first" };
const NUMBER = new Intl.NumberFormat("en-GB");

interface Props {
  asked: SheetRequest;
  /** The first page of what is asked for. */
  first: SheetPage;
  /** What stands at the end of the bar. */
  aside: ReactNode;
}

/** Pictures and their prints; where pictures are brought in. */
export function ContactSheet({ asked: start, first, aside }: Props) {
  const { asked, ask, shown, found, all, cardAt, setInSight, refresh, isFailed } = useSheet(start, first);
  const { imports, bringIn, cancel, dismiss } = useImports(refresh);
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({ onDrop: bringIn, noClick: true, noKeyboard: true });
  useEffect(() => {
    const onPaste = ({ clipboardData }: ClipboardEvent) => clipboardData?.files.length && bringIn([...clipboardData.files]);
    window.addEventListener("paste", onPaste);
    return () => window.removeEventListener("paste", onPaste);
  }, [bringIn]);
  return (
    <div {...getRootProps({ className: styles.page })}>
      <input {...getInputProps({ "aria-label": "Choose pictures", accept: undefined })} data-testid="file-input" />
      <SkipLinks to={{ pictures: "To the pictures" }} />
      <header className={styles.bar}>
        <h1 className={styles.mark}>Nigrographe</h1>
        <span className={styles.crumb}>Contact sheet</span>
        <span className={styles.count} aria-live="polite">
          {found === all ? NUMBER.format(all) : `${NUMBER.format(found)} of ${NUMBER.format(all)}`} {all === 1 ? "picture" : "pictures"}
        </span>
        <Input.Search
          className={styles.search}
          placeholder="Search by name"
          aria-label="Search by name"
          allowClear
          value={asked.search}
          onChange={(event) => ask({ search: event.target.value })}
        />
        <Select
          aria-label="Order"
          value={asked.order}
          onChange={(order) => ask({ order })}
          style={{ width: 130 }}
          options={Object.entries(ORDERS).map(([value, label]) => ({ value: value as SheetOrder, label }))}
        />
        <Button type="primary" onClick={open}>
          Bring in pictures
        </Button>
        <Link href="/bin" className={styles.quietLink}>
          Bin
        </Link>
        <SheetHelp />
        {aside}
      </header>
      <main className={styles.sheet} id="pictures" tabIndex={-1}>
        <ImportList imports={imports} onCancel={cancel} onDismiss={dismiss} />
        {isFailed && (
          <p className={styles.failed} role="alert">
            Some pictures could not be fetched; they are safe. <Button onClick={refresh}>Try again</Button>
          </p>
        )}
        {all === 0 && !isFailed && (
          <section className={styles.empty}>
            <h2>No pictures yet</h2>
            <p>
              Drop developed colour pictures anywhere on this page, paste them, or choose them: JPEG, PNG, TIFF, WebP or AVIF, 8 or 16 bit.
              The originals are stored and never changed.
            </p>
            <Button type="primary" onClick={open}>
              Bring in pictures
            </Button>
          </section>
        )}
        {all > 0 && found === 0 && (
          <section className={styles.empty}>
            <h2>No picture has “{shown.search}” in its name</h2>
            <Button onClick={() => ask({ search: "" })}>Show all</Button>
          </section>
        )}
        <CardRows
          count={found}
          onSight={setInSight}
          card={(index) => {
            const card = cardAt(index);
            if (!card) return <div key={index} role="listitem" aria-busy className={styles.card} data-testid="awaited" />;
            // By its place: a search fills the cards that are there instead of making others.
            return <PictureCard key={index} card={card} index={index} count={found} onChanged={refresh} />;
          }}
        />
      </main>
      {isDragActive && <div className={styles.drop}>Let go to bring the pictures in</div>}
    </div>
  );
}
