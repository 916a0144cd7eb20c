import { parentPort, workerData } from "node:worker_threads";
import { gatherBases, type Gathering } from "./gatherBases";

// Entry of a thread that gathers what a job needs of the whole picture, then ends, and gives back the memory that took.
parentPort!.postMessage(gatherBases(workerData as Gathering));
