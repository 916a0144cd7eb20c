import { parentPort } from "node:worker_threads";
import { PictureError } from "./pictureError";
import { doPictureTask, type PictureTask } from "./pictureTasks";

/** A task with a number to answer to, and the answer; errors keep their class and code. */
export interface TaskMessage {
  number: number;
  task: PictureTask;
}
export type TaskAnswer = { number: number; error?: { picture: PictureError["code"] | undefined; message: string } };

parentPort?.on("message", ({ number, task }: TaskMessage) => {
  doPictureTask(task).then(
    () => parentPort!.postMessage({ number } satisfies TaskAnswer),
    (error: unknown) => {
      const picture = error instanceof PictureError ? error.code : undefined;
      parentPort!.postMessage({ number, error: { picture, message: (error as Error).message } } satisfies TaskAnswer);
    },
  );
});
