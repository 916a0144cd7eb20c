import { parentPort } from "node:worker_threads";
import { PoolWorker, type Help } from "@/engine/pool/poolWorker";

// A thread of the test's that helps as a browser's worker does.

const helper = new PoolWorker();
parentPort!.on("message", (help: Help) => helper.help(help));
