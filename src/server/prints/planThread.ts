import { answerTasks } from "@/engine/node/taskThread";
import { db } from "../db";
import { doPlanTask, type PlanTask } from "./planWork";

// Entry of the thread that takes large plans in.
answerTasks((task: PlanTask) => doPlanTask(db(), task));
