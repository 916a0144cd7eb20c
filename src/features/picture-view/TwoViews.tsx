"use client";
import { useEffect, useState, useSyncExternalStore } from "react";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { Plan } from "@/core/plan/plan";
import { PictureWorker } from "@/engine/browser/pictureWorker";
import { PictureEasel } from "./PictureEasel";
import { createViewStore, tieViews } from "./viewStore";
import styles from "./TwoViews.module.css";

export interface Shown {
  pictureId: string;
  name: string;
  picture: PreparedPicture;
  plan: Plan;
}

/** Prints side by side, of one picture or of several, rendered by one worker: each moves by itself, or all together. */
export function TwoViews({ shown }: { shown: readonly Shown[] }) {
  // There are no workers on the server.
  const isInBrowser = useSyncExternalStore(nothingChanges, () => true, () => false); // prettier-ignore
  return isInBrowser && <Views shown={shown} />;
}

const nothingChanges = () => () => undefined;

function Views({ shown }: { shown: readonly Shown[] }) {
  const [worker] = useState(() => new PictureWorker());
  const [stores] = useState(() => shown.map(createViewStore));
  const [isTied, setTied] = useState(false);
  const [count, setCount] = useState(shown.length);
  useEffect(() => () => worker.close(), [worker]);
  useEffect(() => (isTied ? tieViews(stores) : undefined), [isTied, stores]);
  return (
    <div className={styles.page}>
      <p className={styles.bar}>
        <label>
          <input type="checkbox" checked={isTied} onChange={({ target }) => setTied(target.checked)} /> Together
        </label>
        <button type="button" onClick={() => setCount((now) => (now > 1 ? now - 1 : shown.length))}>
          {count > 1 ? "Close the last" : "Open all"}
        </button>
      </p>
      <div className={styles.views}>
        {shown.slice(0, count).map(({ pictureId, name, picture, plan }, i) => (
          <PictureEasel key={i} worker={worker} pictureId={pictureId} picture={picture} plan={plan} store={stores[i]!} label={name} />
        ))}
      </div>
    </div>
  );
}
