import { parentPort } from "node:worker_threads";
import { Helper, type Help } from "@/engine/crew/helper";

// A thread of the test's that helps as a browser's worker does.

const helper = new Helper();
parentPort!.on("message", (help: Help) => helper.help(help));
