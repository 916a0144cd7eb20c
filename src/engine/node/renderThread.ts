import { workerData } from "node:worker_threads";
import { workOnJob, type RenderJob } from "./renderJob";

// Entry of a render thread: works on the one job it was started with, then ends.
workOnJob(workerData as RenderJob);
