import type { FromPresenter, ToPresenter } from "../messages/messages";
import { Presenter, showFrames } from "./presenter";

// Draws the frames that come from the worker that renders them, whatever the page is busy with.

const scope = self as unknown as DedicatedWorkerGlobalScope;
const presenter = new Presenter((message: FromPresenter) => scope.postMessage(message));

scope.onmessage = ({ data }: MessageEvent<ToPresenter>) => {
  if (data.type === "canvas") presenter.take(data.id, data.canvas);
  else if (data.type === "close") presenter.close(data.view);
  else showFrames(presenter, data.port);
};
