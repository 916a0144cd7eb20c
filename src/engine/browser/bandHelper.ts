import { ditherRow } from "@/core/view/dither";
import { Helper, type Help } from "../crew/helper";

// Helps the worker that renders with its bands.

const helper = new Helper();
ditherRow(0); // takes longer to make than a frame

(self as unknown as DedicatedWorkerGlobalScope).onmessage = ({ data }: MessageEvent<Help>) => helper.help(data);
