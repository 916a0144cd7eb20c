"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import { isWholeFrame } from "@/core/frame/frame";
import type { Plan } from "@/core/plan/plan";
import type { Size } from "@/core/spatial/areaReduce";
import type { PictureView, PictureWorker } from "@/engine/browser/pictureWorker";
import type { FromPresenter } from "@/engine/messages/messages";
import { useFingers } from "./useFingers";
import { useWheel } from "./useWheel";
import { PictureCanvases, type Frames } from "./PictureCanvases";
import { BORDER, usePictureView } from "./usePictureView";
import { wheelScale, type Box, type View } from "./view";
import type { ViewStore } from "./viewStore";
import styles from "./PictureEasel.module.css";

const MARGIN = 16;
const LOOK = { kind: "picture" } as const;

interface Props {
  worker: PictureWorker;
  pictureId: string;
  picture: PreparedPicture;
  plan: Plan;
  store: ViewStore;
  label: string;
}

/**
 * A print on an easel of its own, to be looked at: zoomed by wheel and fingers, dragged, all of it again by a double click. It knows no
 * passes.
 */
export function PictureEasel({ worker, pictureId, picture, plan, store, label }: Props) {
  const easel = useRef<HTMLDivElement>(null);
  const on = usePictureView(easel, store, { picture, frame: plan.frame, isFraming: false, roomIn });
  const { view, frames, failure } = useOpenView(worker, pictureId, picture);
  const { detail, shownSize } = on;
  const asked = JSON.stringify([detail, shownSize]);
  useEffect(() => {
    if (shownSize.width <= 1 || !view.current) return;
    const wish = { look: LOOK, screens: false, pins: [], active: undefined, isPeek: false } as const;
    const number = view.current.render({ ...wish, plan, shownFrame: plan.frame, shownSize, detail });
    if (easel.current) easel.current.dataset.asked = String(number);
    // Sizes and areas are compared by value.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [view, worker, pictureId, picture, plan, asked]);
  const drag = useRef<{ x: number; y: number; from: View } | undefined>(undefined);
  const carried = useRef<View>(on.view);
  const fingers = useFingers(on.pointIn, false, () => false, {
    press: () => undefined,
    move: () => undefined,
    release: () => undefined,
    cancel: () => undefined,
    read: () => undefined,
    hold: () => (carried.current = on.view),
    carry: (from, to, ratio) => on.carry(carried.current, from, to, ratio),
  });
  useWheel(easel, (event) => {
    event.preventDefault();
    on.zoomTo(wheelScale(on.view.scale, event.deltaY), on.pointIn(event));
  });
  const { box } = on;
  return (
    <div
      ref={easel}
      className={styles.easel}
      data-testid="picture-easel"
      onDoubleClick={on.showAll}
      onPointerDown={(event) => {
        if (fingers.down(event) || event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, y: event.clientY, from: on.view };
      }}
      onPointerMove={(event) => {
        if (fingers.move(event)) return;
        const held = drag.current;
        if (held) on.pan(held.from, event.clientX - held.x, event.clientY - held.y);
      }}
      onPointerUp={(event) => {
        if (!fingers.up(event, false)) drag.current = undefined;
      }}
      onPointerCancel={(event) => {
        if (!fingers.up(event, true)) drag.current = undefined;
      }}
    >
      {on.size.width > 0 && (
        <div
          className={styles.print}
          style={{ left: box.left - BORDER, top: box.top - BORDER, width: box.width + 2 * BORDER, height: box.height + 2 * BORDER }}
        >
          <div className={styles.sheet} style={{ left: BORDER, top: BORDER, width: box.width, height: box.height }}>
            <PictureCanvases on={on} frames={frames} picture={picture} isWhole={isWholeFrame(plan.frame)} label={label} />
          </div>
        </div>
      )}
      {failure && (
        <p className={styles.failure} role="alert">
          {`${label} could not be shown: ${failure}. Nothing is lost; reload the page to try again.`}
        </p>
      )}
    </div>
  );
}

/** A view of a picture, open for as long as this is shown. */
function useOpenView(worker: PictureWorker, pictureId: string, picture: PreparedPicture) {
  const view = useRef<PictureView>(undefined);
  const [failure, setFailure] = useState<string>();
  const listeners = useRef(new Set<(message: FromPresenter) => void>());
  useEffect(() => {
    const opened = worker.open(pictureId, picture, {
      onReady: () => undefined,
      onPresented: (message) => listeners.current.forEach((listener) => listener(message)),
      onMeasured: () => undefined,
      onCleaning: () => undefined,
      onFailure: setFailure,
    });
    view.current = opened;
    return () => {
      view.current = undefined;
      opened.close();
    };
  }, [worker, pictureId, picture]);
  const frames = useMemo<Frames>(
    () => ({
      drawOn: (id, canvas) => view.current?.drawOn(id, canvas),
      onPresented: (listener) => {
        listeners.current.add(listener);
        return () => listeners.current.delete(listener);
      },
    }),
    [],
  );
  return { view, frames, failure };
}

function roomIn({ width, height }: Size): Box {
  const around = MARGIN + BORDER;
  return { left: around, top: around, width: Math.max(width - 2 * around, 50), height: Math.max(height - 2 * around, 50) };
}
