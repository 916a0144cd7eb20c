"use client";
import { App, Button, Dropdown, Input, Rate } from "antd";
import { CloseOutlined } from "@ant-design/icons";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { memo, useState, type CSSProperties } from "react";
import type { PictureChange, PrintChange } from "@/contracts/api";
import type { SheetCard, SheetPrint } from "@/contracts/contactSheet";
import styles from "./ContactSheet.module.css";

interface Props {
  card: SheetCard;
  /** Its place among all that are found, from 0, and how many those are. */
  index: number;
  count: number;
  onChanged(): void;
}

/** A picture with its prints, to open, rate, rename and delete. Drawn anew only where it changed: while one scrolls, rows come and go. */
export const PictureCard = memo(function PictureCard({ card: picture, index, count, onChanged }: Props) {
  const { message, modal } = App.useApp();
  const router = useRouter();
  const changePicture = (change: PictureChange) => patch(`/api/pictures/${picture.id}`, change).then(onChanged);
  const changePrint = (id: string, change: PrintChange) => patch(`/api/prints/${id}`, change).then(onChanged);
  const failed = () => void message.error("That did not reach the server. Nothing was changed; try again in a moment.");

  const offerUndo = (words: string, undo: () => Promise<void>) => {
    const key = `${picture.id} ${words}`;
    const onUndo = () => {
      message.destroy(key);
      undo().catch(failed);
    };
    void message.open({
      key,
      type: "info",
      duration: 10,
      content: (
        <>
          {words}{" "}
          <Button size="small" type="link" onClick={onUndo}>
            Undo
          </Button>
        </>
      ),
    });
  };
  const deletePicture = () =>
    changePicture({ deleted: true }).then(() => offerUndo(`${picture.name} deleted.`, () => changePicture({ deleted: false })), failed);
  const deletePrint = (print: SheetPrint) =>
    changePrint(print.id, { deleted: true }).then(
      () => offerUndo(`${print.name} of ${picture.name} deleted.`, () => changePrint(print.id, { deleted: false })),
      failed,
    );
  const addPrint = async () => {
    const response = await fetch(`/api/pictures/${picture.id}/prints`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: "{}",
    }).catch(() => undefined);
    if (!response?.ok) return failed();
    router.push(`/prints/${((await response.json()) as { id: string }).id}`);
  };
  const rename = () => {
    let name = picture.name;
    void modal.confirm({
      icon: null,
      title: "Name of the picture",
      content: (
        <Input defaultValue={name} maxLength={120} aria-label="Name of the picture" onChange={(event) => (name = event.target.value)} />
      ),
      okText: "Rename",
      onOk: () => (name.trim() ? changePicture({ name }).catch(failed) : undefined),
    });
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
          <Button onClick={() => void addPrint()}>Start a print</Button>
        </div>
      )}
      <div className={styles.words}>
        <h2>{first ? <Link href={`/prints/${first.id}`}>{picture.name}</Link> : picture.name}</h2>
        <Dropdown
          trigger={["click"]}
          menu={{
            items: [
              { key: "print", label: "Another print" },
              { key: "rename", label: "Rename…" },
              { key: "delete", label: "Delete picture", danger: true },
            ],
            onClick: ({ key }) => void { print: addPrint, rename, delete: deletePicture }[key as "print"]?.(),
          }}
        >
          <button type="button" className={styles.quiet} aria-label={`More for ${picture.name}`}>
            More
          </button>
        </Dropdown>
      </div>
      <p className={styles.facts}>{`${picture.width} × ${picture.height}, ${facts.format} ${facts.bits} bit, ${facts.profile}`}</p>
      <div className={styles.rating}>
        <Rate
          value={picture.rating}
          aria-label={`Rating of ${picture.name}`}
          character="■"
          onChange={(rating) => void changePicture({ rating }).catch(failed)}
        />
      </div>
      <ul className={styles.prints} aria-label={`Prints of ${picture.name}`}>
        {prints.map((print) => (
          <li key={print.id}>
            <Link href={`/prints/${print.id}`}>{print.name}</Link>
            <button
              type="button"
              className={styles.quiet}
              aria-label={`Delete ${print.name} of ${picture.name}`}
              onClick={() => void deletePrint(print)}
            >
              <CloseOutlined />
            </button>
          </li>
        ))}
      </ul>
    </article>
  );
});

async function patch(path: string, change: object): Promise<void> {
  const response = await fetch(path, { method: "PATCH", headers: { "content-type": "application/json" }, body: JSON.stringify(change) });
  if (!response.ok) throw new Error(`status ${response.status}`);
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
