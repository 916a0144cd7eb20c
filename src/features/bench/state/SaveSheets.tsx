"use client";
import { App, Button, Modal } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useStore } from "zustand";
import type { createBenchStore } from "./benchStore";
import { keepAsPrint } from "./keepAsPrint";

type Store = ReturnType<typeof createBenchStore>;

/** Enter, pressed for something else as a sheet comes up, loses nothing: the focus goes to what keeps all there is. */
const KEEPS_FIRST = {
  afterOpenChange: (isOpen: boolean) => {
    if (isOpen) document.querySelector<HTMLElement>(".ant-modal-wrap [data-first]")?.focus();
  },
};

/** Said when the print was changed in another window: keep this work as another print, or take the other. */
export function StaleSheet({ store, printId, pictureId }: { store: Store; printId: string; pictureId: string }) {
  const saveState = useStore(store, (state) => state.saveState);
  const router = useRouter();
  const { message } = App.useApp();
  const keep = async () => {
    const { plan, planAt } = store.getState();
    const kept = await keepAsPrint(pictureId, store.saves.unsent, planAt, plan);
    if (!kept) return void message.error("It could not be kept just now. Nothing is lost; try again in a moment.");
    await store.saves.clear();
    router.push(`/prints/${kept}`);
  };
  const take = async () => {
    await store.saves.clear();
    location.assign(`/prints/${printId}`);
  };
  return (
    <Modal
      title="This print was changed in another window"
      open={saveState === "stale"}
      closable={false}
      {...KEEPS_FIRST}
      footer={[
        <Button key="take" onClick={() => void take()}>
          Show the other, drop mine
        </Button>,
        <Button key="keep" type="primary" data-first onClick={() => void keep()}>
          Keep mine as another print
        </Button>,
      ]}
    >
      <p>Both are safe so far: the other window&apos;s work is saved, yours is kept here. Choose what becomes of yours.</p>
    </Modal>
  );
}

/** Said when a step cannot be saved: leave it out, keep the work as another print, or go on; the next step holds all that this one did. */
export function RefusedSheet({ store, pictureId }: { store: Store; pictureId: string }) {
  const saveState = useStore(store, (state) => state.saveState);
  const reason = useStore(store, (state) => state.saveMessage);
  const label = useStore(store, ({ history }) => history.revisions.find(({ id }) => id === history.head)?.label);
  const head = useStore(store, ({ history }) => history.head);
  const [seen, setSeen] = useState<string>();
  const router = useRouter();
  const { message } = App.useApp();
  const keep = async () => {
    const { plan, planAt } = store.getState();
    const kept = await keepAsPrint(pictureId, store.saves.unsent, planAt, plan);
    if (!kept) return void message.error("As another print it could not be kept either. Leave the step out, and all before it is safe.");
    await store.saves.clear();
    router.push(`/prints/${kept}`);
  };
  return (
    <Modal
      title={`“${label ?? "The last step"}” could not be saved`}
      open={saveState === "refused" && seen !== head}
      onCancel={() => setSeen(head)}
      {...KEEPS_FIRST}
      footer={[
        <Button key="keep" onClick={() => void keep()}>
          Keep mine as another print
        </Button>,
        <Button key="on" data-first onClick={() => setSeen(head)}>
          Go on
        </Button>,
        <Button key="out" type="primary" onClick={() => void store.getState().undo()}>
          Leave this step out
        </Button>,
      ]}
    >
      <p>
        The server refused it: {reason}. All before it is saved, and this step is kept in this browser. If you go on, your next step holds
        what this one did, as far as it can be saved.
      </p>
    </Modal>
  );
}
