"use client";
import { App, Button } from "antd";
import { DownOutlined } from "@ant-design/icons";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { PrintSummary, type PrintName } from "@/contracts/api";
import { askName } from "../shared/askName";
import { askServer } from "../shared/askServer";
import { Menu } from "../shared/Menu";
import { planFileOf, readPlanFile } from "./planFile";
import { sayOnArrival } from "./state/arrival";
import { useBench, useBenchState } from "./state/BenchContext";
import styles from "./TopBar.module.css";

/** The print's name, and what can be done with the print as a whole. */
export function PrintMenu() {
  const { start, store } = useBench();
  const { modal, message } = App.useApp();
  const isSaved = useBenchState((state) => state.saveState === "saved");
  const [name, setName] = useState(start.print.name);
  const [others, setOthers] = useState(() => start.prints.filter(({ id }) => id !== start.print.id));
  const router = useRouter();
  const go = ({ id, name: its }: PrintName) => {
    sayOnArrival(id, `You are on “${its}” of ${start.picture.name} now; “${name}” is as you left it.`);
    router.push(`/prints/${id}`);
  };
  const chooser = useRef<HTMLInputElement>(null);
  const path = `/api/prints/${start.print.id}`;
  const failed = () => void message.error("That did not reach the server. Nothing was changed; try again in a moment.");

  const rename = () =>
    void modal.confirm(
      askName("Name of the print", name, async (wanted) => {
        const done = await askServer("PATCH", path, { name: wanted });
        if (done) setName(PrintSummary.parse(await done.json()).name);
        else failed();
      }),
    );
  const copy = async () => {
    const done = await askServer("POST", `${path}/copies`);
    if (!done) return failed();
    const made = PrintSummary.parse(await done.json());
    setOthers((now) => [...now, made]);
    void message.info(
      <>
        “{made.name}” has all that this print has; you are still on “{name}”.{" "}
        <Button type="link" size="small" onClick={() => go(made)}>
          Open it
        </Button>
      </>,
      8,
    );
  };
  const save = () => {
    const link = document.createElement("a");
    link.href = URL.createObjectURL(planFileOf(store.getState().plan));
    link.download = `${start.picture.name}, ${name}.json`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href));
  };
  const layIn = async (file: File | undefined) => {
    if (!file) return;
    const read = await readPlanFile(file);
    if ("reason" in read)
      return store.getState().set({ failure: `“${file.name}” was not laid in: ${read.reason} Your print is as it was.` });
    const { commitPending, adjust, commit, set } = store.getState();
    commitPending();
    adjust(() => read.plan);
    commit(`Plan laid in from ${file.name}`);
    const { length } = read.plan.passes;
    set({
      notice: `The plan of ${file.name} is laid in, ${length === 1 ? "one pass" : `${length} passes`}. Undo brings back the one before.`,
    });
  };
  const acts: Record<string, () => unknown> = { rename, copy, save, lay: () => chooser.current?.click() };
  return (
    <span>
      <Menu
        items={[
          ...(others.length > 0
            ? [
                {
                  type: "group" as const,
                  label: `Other prints of ${start.picture.name}`,
                  children: others.map((print) => ({ key: print.id, label: print.name, onClick: () => go(print) })),
                },
                { type: "divider" as const },
              ]
            : []),
          { key: "rename", label: "Rename…" },
          { key: "copy", label: isSaved ? "Duplicate" : "Duplicate (once it is saved)", disabled: !isSaved },
          { type: "divider" },
          { key: "save", label: "Save the plan as a file" },
          { key: "lay", label: "Lay a plan in from a file…" },
        ]}
        onPick={(key) => void acts[key]?.()}
      >
        <Button
          size="small"
          type="text"
          className={styles.quiet}
          aria-label={`${name}: other prints, rename, duplicate, plan`}
          title={name}
        >
          <span className={styles.printName}>{name}</span> <DownOutlined />
        </Button>
      </Menu>
      <input
        ref={chooser}
        type="file"
        hidden
        accept="application/json,.json"
        data-testid="plan-file"
        onChange={(event) => {
          void layIn(event.target.files?.[0]);
          event.target.value = ""; // the same file can be chosen again
        }}
      />
    </span>
  );
}
