"use client";
import { App } from "antd";
import Link from "next/link";
import type { SheetCard, SheetPrint } from "@/contracts/contactSheet";
import { askName } from "../shared/askName";
import { askServer } from "../shared/askServer";
import { MoreMenu } from "./MoreMenu";
import { useChange } from "./useChange";

const ITEMS = [
  { key: "rename", label: "Rename…" },
  { key: "copy", label: "Duplicate" },
  { key: "bin", label: "Move to the bin", danger: true },
] as const;

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
      <MoreMenu name={`${print.name} of ${picture.name}`} items={ITEMS} onPick={(key) => void acts[key]()} />
    </li>
  );
}
