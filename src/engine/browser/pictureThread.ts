import { answering } from "../messages/asking";
import type { FromWorker, Questions, ToRenderer, ToWorker } from "../messages/messages";
import { PlanReceiver } from "../messages/wirePlan";
import type { TaskRunner } from "../pool/taskRunner";
import { OpenPicture } from "../views/openPicture";
import { ViewRenderer, type ViewHost } from "../views/viewRenderer";
import { spotSource } from "../views/spotSource";
import { startPool } from "./startPool";

// The page's worker: holds the decoded pictures and what views of them rendered, and renders frames, one at a time.

const scope = self as unknown as DedicatedWorkerGlobalScope;
const HUE_BINS = 180;

const say = (message: FromWorker, transfer: Transferable[] = []) => scope.postMessage(message, transfer);
const receiver = new PlanReceiver();
/** Where frames are drawn. */
let frames: MessagePort | undefined;
let runner: TaskRunner | undefined;
/** Pictures by their id, for as long as a view of them is open. */
const pictures = new Map<string, Promise<OpenPicture>>();
const views = new Map<number, ViewRenderer>();
/** Requests for views that are not open yet, the newest of each. */
const early = new Map<number, Parameters<ViewRenderer["request"]>>();

// A message to ourselves lets those that are already there in first, so that only the newest render of each view is done.
const turn = new MessageChannel();
let isScheduled = false;
turn.port1.onmessage = () => {
  isScheduled = false;
  const [next] = [...views.values()].filter(({ isWaiting }) => isWaiting);
  if (!next) return;
  // Whoever was served goes to the end of the line.
  views.delete(next.id);
  views.set(next.id, next);
  next.renderWaiting();
  if ([...views.values()].some(({ isWaiting }) => isWaiting)) schedule();
};

function schedule(): void {
  if (isScheduled) return;
  isScheduled = true;
  turn.port2.postMessage(undefined);
}

/** Resolved once a view is open; what is asked before waits for it. */
const opened = new Map<number, { view: Promise<ViewRenderer>; open(view: ViewRenderer): void }>();

function viewOf(id: number) {
  let known = opened.get(id);
  if (!known) {
    let open: (view: ViewRenderer) => void;
    const view = new Promise<ViewRenderer>((resolve) => (open = resolve));
    opened.set(id, (known = { view, open: open! }));
  }
  return known;
}

async function openView(id: number, { pictureId, picture, origin, cores }: Questions["open"]["question"]): Promise<ViewRenderer> {
  runner ??= startPool(cores);
  const opening = pictures.get(pictureId) ?? OpenPicture.open(pictureId, picture, origin, runner);
  pictures.set(pictureId, opening);
  try {
    const host: ViewHost = { say, show: (frame) => frames?.postMessage(frame, [frame.rgba.buffer]), schedule, runner };
    const view = new ViewRenderer(id, await opening, host);
    views.set(id, view);
    const request = early.get(id);
    early.delete(id);
    viewOf(id).open(view);
    if (request) view.request(...request);
    return view;
  } catch (error) {
    pictures.delete(pictureId);
    throw error;
  }
}

/** Closes a view, at once or as soon as it is open. */
async function closeView(id: number): Promise<void> {
  early.delete(id);
  const view = await viewOf(id).view;
  view.close();
  views.delete(id);
  opened.delete(id);
  const { open } = view;
  for (const [pictureId, opening] of pictures) {
    const found = await opening.catch(() => undefined);
    if (found === open && open.looking.size === 0) pictures.delete(pictureId);
  }
}

const answer = answering<Questions>(
  {
    open: async (question, id) => ({ answer: { hueShares: (await openView(id, question)).open.preview.hueShares(HUE_BINS) } }),
    read: (place, id) => ({ answer: views.get(id)?.read(place) }),
    glimpse: async (question, id) => {
      const plan = receiver.unpack(question.plan); // in the order in which plans were sent
      const glimpses = (await viewOf(id).view).glimpses(plan, question.of);
      return { answer: glimpses, transfer: glimpses.map(({ rgba }) => rgba.buffer) };
    },
    plane: async (question, id) => {
      const plan = receiver.unpack(question.plan);
      const found = (await viewOf(id).view).open.small.plane(plan, question.of);
      return { answer: found, transfer: found ? [found.plane.buffer] : [] };
    },
    accents: async (question, id) => {
      const plan = receiver.unpack(question.plan);
      return { answer: (await viewOf(id).view).open.small.accents(plan, question.passId, question.scale) };
    },
    colourAt: async ({ plan: packed, place, reach }, id) => {
      const plan = receiver.unpack(packed);
      return { answer: (await viewOf(id).view).colourAt(plan, place, reach) };
    },
    twins: async (question, id) => {
      const plan = receiver.unpack(question.plan);
      return { answer: (await viewOf(id).view).open.small.twins(plan) };
    },
    spotSource: async ({ spot, ...besides }, id) => {
      const { picture, fetcher } = (await viewOf(id).view).open;
      return { answer: await spotSource(picture, fetcher, spot, besides, new AbortController().signal) };
    },
    mixes: async (_, id) => ({ answer: (await viewOf(id).view).open.small.mixes() }),
  },
  say,
);

scope.onmessage = ({ data }: MessageEvent<ToWorker>) => {
  switch (data.type) {
    case "ask":
      void answer(data);
      break;
    case "render": {
      const request = { ...data.request, plan: receiver.unpack(data.request.plan) };
      const view = views.get(data.view);
      if (view) view.request(data.number, request);
      else early.set(data.view, [data.number, request]);
      break;
    }
    case "close":
      void closeView(data.view);
      break;
    case "frames":
      frames = data.port;
      frames.onmessage = ({ data: { view, buffer } }: MessageEvent<ToRenderer>) => views.get(view)?.recycle(buffer);
      break;
    case "ping":
      say({ type: "pong" });
      break;
  }
};
