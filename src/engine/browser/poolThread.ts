import { ditherRow } from "@/core/view/dither";
import { PoolWorker, type Help } from "../pool/poolWorker";

// Helps the worker that renders with its bands.

const helper = new PoolWorker();
ditherRow(0); // takes longer to make than a frame

(self as unknown as DedicatedWorkerGlobalScope).onmessage = ({ data }: MessageEvent<Help>) => helper.help(data);
