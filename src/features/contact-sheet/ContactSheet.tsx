"use client";
import { App, Button, Dropdown, Input, Progress, Rate, Select } from "antd";
import { CloseOutlined } from "@ant-design/icons";
import { group } from "d3";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useMemo, useState, type ReactNode } from "react";
import { useDropzone } from "react-dropzone";
import type { PictureChange, PictureSummary, PrintChange, PrintSummary } from "@/contracts/api";
import { useImports, type Import } from "./useImports";
import styles from "./ContactSheet.module.css";

const SORTS = {
  newest: { label: "Newest first", order: (a: PictureSummary, b: PictureSummary) => b.createdAt.getTime() - a.createdAt.getTime() },
  name: { label: "By name", order: (a: PictureSummary, b: PictureSummary) => a.name.localeCompare(b.name) },
  rating: { label: "Best first", order: (a: PictureSummary, b: PictureSummary) => b.rating - a.rating || a.name.localeCompare(b.name) },
} as const;
type Sort = keyof typeof SORTS;

interface Props {
  pictures: PictureSummary[];
  prints: PrintSummary[];
  /** What stands at the end of the bar. */
  aside: ReactNode;
}

/** Pictures and their prints; where pictures are brought in. */
export function ContactSheet({ pictures, prints, aside }: Props) {
  const router = useRouter();
  const refresh = useCallback(() => router.refresh(), [router]);
  const { imports, bringIn, cancel, dismiss } = useImports(refresh);
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({ onDrop: bringIn, noClick: true, noKeyboard: true });
  const [search, setSearch] = useState("");
  const [sort, setSort] = useState<Sort>("newest");
  const shown = useMemo(() => {
    const words = search.toLowerCase();
    return pictures.filter(({ name }) => name.toLowerCase().includes(words)).toSorted(SORTS[sort].order);
  }, [pictures, search, sort]);

  const printsOf = useMemo(() => group(prints, ({ pictureId }) => pictureId), [prints]);

  return (
    <div {...getRootProps({ className: styles.page })}>
      <input {...getInputProps({ "aria-label": "Choose pictures", accept: undefined })} data-testid="file-input" />
      <header className={styles.bar}>
        <span className={styles.mark}>Nigrographe</span>
        <span className={styles.crumb}>Contact sheet</span>
        <Input.Search
          className={styles.search}
          placeholder="Search by name"
          aria-label="Search by name"
          allowClear
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <Select
          aria-label="Order"
          value={sort}
          onChange={setSort}
          style={{ width: 130 }}
          options={Object.entries(SORTS).map(([value, { label }]) => ({ value: value as Sort, label }))}
        />
        <Button type="primary" onClick={open}>
          Bring in pictures
        </Button>
        {aside}
      </header>
      <main className={styles.sheet}>
        <ImportList imports={imports} onCancel={cancel} onDismiss={dismiss} />
        {pictures.length === 0 && (
          <section className={styles.empty}>
            <h2>No pictures yet</h2>
            <p>
              Drop developed colour pictures anywhere on this page, or choose them: JPEG, PNG, TIFF, WebP or AVIF, 8 or 16 bit. The
              originals are stored and never changed.
            </p>
            <Button type="primary" onClick={open}>
              Bring in pictures
            </Button>
          </section>
        )}
        {pictures.length > 0 && shown.length === 0 && (
          <section className={styles.empty}>
            <h2>No picture has “{search}” in its name</h2>
            <Button onClick={() => setSearch("")}>Show all</Button>
          </section>
        )}
        <ul className={styles.grid}>
          {shown.map((picture) => (
            <PictureCard key={picture.id} picture={picture} prints={printsOf.get(picture.id) ?? []} onChanged={refresh} />
          ))}
        </ul>
      </main>
      {isDragActive && <div className={styles.drop}>Let go to bring the pictures in</div>}
    </div>
  );
}

function PictureCard({ picture, prints, onChanged }: { picture: PictureSummary; prints: PrintSummary[]; onChanged(): void }) {
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
  const deletePrint = (print: PrintSummary) =>
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
  const first = prints[0];
  const { facts } = picture;
  return (
    <li className={styles.card} data-testid="picture">
      {first ? (
        <Link href={`/prints/${first.id}`} className={styles.easel} aria-label={`${picture.name}, ${first.name}`}>
          {/* eslint-disable-next-line @next/next/no-img-element -- already the right size */}
          <img
            src={`/api/prints/${first.id}/thumbnail?revision=${first.head}`}
            alt=""
            loading="lazy"
            style={{ aspectRatio: `${picture.width} / ${picture.height}` }}
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
          <Button size="small" type="text" aria-label={`More for ${picture.name}`}>
            More
          </Button>
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
            <Button
              size="small"
              type="text"
              icon={<CloseOutlined />}
              aria-label={`Delete ${print.name} of ${picture.name}`}
              onClick={() => void deletePrint(print)}
            />
          </li>
        ))}
      </ul>
    </li>
  );
}

const IMPORT_WORDS: Record<Import["state"], string> = {
  waiting: "Waiting",
  sending: "Sending",
  reading: "Reading",
  done: "Brought in",
  refused: "Not taken",
  cancelled: "Cancelled",
};

function ImportList({ imports, onCancel, onDismiss }: { imports: Import[]; onCancel(id: string): void; onDismiss(id: string): void }) {
  if (imports.length === 0) return null;
  return (
    <ul className={styles.imports} aria-label="Pictures being brought in" data-testid="imports">
      {imports.map(({ id, name, state, part, reason }) => {
        const isUnderWay = state === "waiting" || state === "sending" || state === "reading";
        return (
          <li key={id} data-state={state}>
            <b>{name}</b>
            <span>
              {IMPORT_WORDS[state]}
              {reason ? `: ${reason}` : ""}
            </span>
            {isUnderWay && <Progress percent={Math.round(part * 90 + (state === "reading" ? 5 : 0))} size="small" showInfo={false} />}
            <Button size="small" type="text" onClick={() => (isUnderWay ? onCancel(id) : onDismiss(id))}>
              {isUnderWay ? "Cancel" : "Close"}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

async function patch(path: string, change: object): Promise<void> {
  const response = await fetch(path, { method: "PATCH", headers: { "content-type": "application/json" }, body: JSON.stringify(change) });
  if (!response.ok) throw new Error(`status ${response.status}`);
}
