import type { FromPresenter, ToPresenter } from "../messages/messages";
import { Presenter, showFrames } from "./presenter";

/** Where frames are drawn. */
export interface Presenting {
  /** A port that frames are sent into, for whoever renders them from now on. */
  connect(): MessagePort;
  /** Draws on a canvas of the page, given for a wish. */
  drawOn(id: number, canvas: HTMLCanvasElement): void;
  /** Nothing of a view is drawn any more. */
  closeView(view: number): void;
  close(): void;
}

/** Frames are drawn by a worker of their own where a canvas can be handed to one, so that no busy page delays them; else by the page. */
export function startPresenting(say: (message: FromPresenter) => void, onFailure: (reason: string) => void): Presenting {
  return "transferControlToOffscreen" in HTMLCanvasElement.prototype ? inWorker(say, onFailure) : onPage(say);
}

function inWorker(say: (message: FromPresenter) => void, onFailure: (reason: string) => void): Presenting {
  const worker = new Worker(new URL("./presentWorker.ts", import.meta.url), { type: "module", name: "drawing" });
  worker.onmessage = ({ data }: MessageEvent<FromPresenter>) => say(data);
  worker.onerror = ({ message }) => onFailure(message || "what draws it stopped");
  const given = new WeakSet<HTMLCanvasElement>();
  const send = (message: ToPresenter, transfer: Transferable[]) => worker.postMessage(message, transfer);
  return {
    connect() {
      const { port1, port2 } = new MessageChannel();
      send({ type: "frames", port: port1 }, [port1]);
      return port2;
    },
    drawOn(id, element) {
      if (given.has(element)) return; // a canvas can be handed over once
      given.add(element);
      const canvas = element.transferControlToOffscreen();
      send({ type: "canvas", id, canvas }, [canvas]);
    },
    closeView: (view) => send({ type: "close", view }, []),
    close: () => worker.terminate(),
  };
}

function onPage(say: (message: FromPresenter) => void): Presenting {
  const presenter = new Presenter(say);
  let port: MessagePort | undefined;
  return {
    connect() {
      port?.close();
      const { port1, port2 } = new MessageChannel();
      showFrames(presenter, (port = port1));
      return port2;
    },
    drawOn: (id, canvas) => presenter.take(id, canvas),
    closeView: (view) => presenter.close(view),
    close: () => port?.close(),
  };
}
