"use client";
import { App, Button } from "antd";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { memo, useState, type CSSProperties } from "react";
import type { SheetCard } from "@/contracts/contactSheet";
import { askName } from "../shared/askName";
import { askServer } from "../shared/askServer";
import { MoreMenu } from "./MoreMenu";
import { PrintRow } from "./PrintRow";
import { Rating } from "./Rating";
import { useChange } from "./useChange";
import styles from "./ContactSheet.module.css";

const ITEMS = [
  { key: "print", label: "Another print" },
  { key: "rename", label: "Rename…" },
  { key: "bin", label: "Move to the bin", danger: true },
] as const;

interface Props {
  card: SheetCard;
  /** Its place among all that are found, from 0, and how many those are. */
  index: number;
  count: number;
  onChanged(): void;
}

/** A picture with its prints, to open, rate, rename and delete. Drawn anew only where it changed: while one scrolls, rows come and go. */
export const PictureCard = memo(function PictureCard({ card: picture, index, count, onChanged }: Props) {
  const { modal } = App.useApp();
  const router = useRouter();
  const { change, moveToBin, failed } = useChange(onChanged);
  const path = `/api/pictures/${picture.id}`;
  const addPrint = async () => {
    const response = await askServer("POST", `${path}/prints`, {});
    if (!response) return failed();
    router.push(`/prints/${((await response.json()) as { id: string }).id}`);
  };
  const acts = {
    print: addPrint,
    rename: () => void modal.confirm(askName("Name of the picture", picture.name, (name) => change(path, { name }))),
    bin: () => moveToBin(path, picture.name),
  };
  const { facts, prints } = picture;
  const first = prints[0];
  return (
    <article role="listitem" aria-setsize={count} aria-posinset={index + 1} className={styles.card} data-testid="picture">
      {first ? (
        <Link href={`/prints/${first.id}`} className={styles.easel} aria-label={`${picture.name}, ${first.name}`}>
          <Thumbnail
            key={first.head}
            src={`/api/prints/${first.id}/thumbnail?revision=${first.head}`}
            ratio={picture.width / picture.height}
          />
        </Link>
      ) : (
        <div className={styles.easel}>
          <Thumbnail src={`${path}/thumbnail`} ratio={picture.width / picture.height} />
          <Button className={styles.start} onClick={() => void addPrint()}>
            Start a print
          </Button>
        </div>
      )}
      {first && <ColourGlance name={picture.name} src={`${path}/thumbnail`} ratio={picture.width / picture.height} />}
      <div className={styles.words}>
        <h2>{first ? <Link href={`/prints/${first.id}`}>{picture.name}</Link> : picture.name}</h2>
        <MoreMenu name={picture.name} items={ITEMS} onPick={(key) => void acts[key]()} />
      </div>
      <p className={styles.facts}>{`${picture.width} × ${picture.height}, ${facts.format} ${facts.bits} bit, ${facts.profile}`}</p>
      <Rating name={picture.name} value={picture.rating} onChange={(rating) => void change(path, { rating })} />
      <ul className={styles.prints} aria-label={`Prints of ${picture.name}`}>
        {prints.map((print) => (
          <PrintRow key={print.id} print={print} picture={picture} onChanged={onChanged} />
        ))}
      </ul>
    </article>
  );
});

/** The picture in its own colours over its print, for as long as its button is pointed at, pressed or has the focus. */
function ColourGlance({ name, src, ratio }: { name: string; src: string; ratio: number }) {
  const [isShown, setShown] = useState(false);
  const show = (shown: boolean) => () => setShown(shown);
  return (
    <div className={styles.glance}>
      {isShown && (
        <span className={styles.easel}>
          <Thumbnail src={src} ratio={ratio} />
        </span>
      )}
      <button
        type="button"
        className={styles.colour}
        aria-label={`Show ${name} in colour`}
        aria-pressed={isShown}
        onPointerEnter={show(true)}
        onPointerLeave={show(false)}
        onFocus={show(true)}
        onBlur={show(false)}
        onClick={show(true)}
      >
        Colour
      </button>
    </div>
  );
}

/** A print small: in the picture's proportions until it is there, then in its own. */
function Thumbnail({ src, ratio }: { src: string; ratio: number }) {
  const [own, setOwn] = useState<number>();
  const measure = (image: HTMLImageElement | null) => {
    if (image?.naturalHeight) setOwn(image.naturalWidth / image.naturalHeight);
  };
  return (
    // eslint-disable-next-line @next/next/no-img-element -- already the right size
    <img
      src={src}
      alt=""
      // It may have come before the page was awake.
      ref={measure}
      onLoad={(event) => measure(event.currentTarget)}
      style={{ "--ratio": own ?? ratio } as CSSProperties}
    />
  );
}
