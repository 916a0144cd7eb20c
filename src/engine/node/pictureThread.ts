import { doPictureTask } from "./pictureTasks";
import { answerTasks } from "./taskThread";

// Entry of a thread that does picture tasks.
answerTasks(doPictureTask);
