"use client";
import { App, Dropdown } from "antd";
import Link from "next/link";
import type { SheetCard, SheetPrint } from "@/contracts/contactSheet";
import { askName } from "../shared/askName";
import { askServer } from "../shared/askServer";
import { useChange } from "./useChange";
import styles from "./ContactSheet.module.css";

interface Props {
  print: SheetPrint;
  picture: SheetCard;
  onChanged(): void;
}

/** A print on its picture's card: to open, rename, copy and delete. */
export function PrintRow({ print, picture, onChanged }: Props) {
  const { modal } = App.useApp();
  const { change, moveToBin, failed } = useChange(onChanged);
  const path = `/api/prints/${print.id}`;
  const acts = {
    rename: () => void modal.confirm(askName("Name of the print", print.name, (name) => change(path, { name }))),
    copy: async () => ((await askServer("POST", `${path}/copies`)) ? onChanged() : failed()),
    bin: () => moveToBin(path, `${print.name} of ${picture.name}`),
  };
  return (
    <li>
      <Link href={`/prints/${print.id}`}>{print.name}</Link>
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "rename", label: "Rename…" },
            { key: "copy", label: "Duplicate" },
            { key: "bin", label: "Move to the bin", danger: true },
          ],
          onClick: ({ key }) => void acts[key as keyof typeof acts](),
        }}
      >
        <button type="button" className={styles.quiet} aria-label={`More for ${print.name} of ${picture.name}`}>
          More
        </button>
      </Dropdown>
    </li>
  );
}
