// Who runs from a data folder: noted there, so that a start that was cut off leaves nothing behind that the next does not find.
import { readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as pause } from "node:timers/promises";
import { isProcess, makePrivate } from "./cluster.mjs";
import { say } from "./install.mjs";

const END_WITHIN_MS = 10_000;
/** What tells a part from another process that has been given its number since. */
const MARKS = { setup: "setup.mjs", "export worker": "worker.mjs", "web server": "web.mjs" };

const noteIn = (folder) => join(folder, "running.json");

/**
 * Makes the folder and takes it for this process, to serve from it or for a task; ends parts that an earlier start left running in it.
 * Waits while a task holds it; throws with a plain reason where another start serves from it, or it cannot be used.
 */
export async function takeFolder(folder, { task, port, host, databasePort }) {
  const note = JSON.stringify({ pid: process.pid, task, port, host, databasePort, parts: {} });
  for (let isSaid = false; ; isSaid = true) {
    try {
      makePrivate(folder);
      return writeFileSync(noteIn(folder), note, { flag: "wx" });
    } catch (error) {
      if (error.code !== "EEXIST") throw new Error(reasonFor(error, folder), { cause: error });
    }
    const earlier = readNote(folder);
    if (!earlier || earlier.pid === process.pid || !isProcess(earlier.pid, "start.mjs")) {
      await endParts(earlier?.parts ?? {});
      return writeFileSync(noteIn(folder), note);
    }
    if (!earlier.task)
      throw new Error(`Nigrographe runs from ${folder} already (process ${earlier.pid}): http://localhost:${earlier.port}.`);
    if (!isSaid) say(`waiting for "./start ${earlier.task}" on ${folder} to end (process ${earlier.pid}); Ctrl+C gives up`);
    await pause(200);
  }
}

/** What serves from a folder: its address and the port of its database; undefined where nothing does. */
export function runningFrom(folder) {
  const note = readNote(folder);
  return note && !note.task && isProcess(note.pid, "start.mjs") ? note : undefined;
}

/** Notes a part by its process, in the folder this process has taken. */
export function notePart(folder, name, pid) {
  const note = readNote(folder);
  if (note) writeFileSync(noteIn(folder), JSON.stringify({ ...note, parts: { ...note.parts, [name]: pid } }));
}

export function releaseFolder(folder) {
  rmSync(noteIn(folder), { force: true });
}

function readNote(folder) {
  try {
    return JSON.parse(readFileSync(noteIn(folder), "utf8"));
  } catch {
    return undefined; // cut off while it was written
  }
}

async function endParts(parts) {
  for (const [name, pid] of Object.entries(parts)) {
    if (!isProcess(pid, MARKS[name])) continue;
    say(`ending the ${name} of an earlier start that was cut off (process ${pid})`);
    process.kill(pid, "SIGTERM");
    for (let waited = 0; waited < END_WITHIN_MS && isProcess(pid, MARKS[name]); waited += 50) await pause(50);
    if (isProcess(pid, MARKS[name])) process.kill(pid, "SIGKILL");
  }
}

function reasonFor(error, folder) {
  const because = {
    EACCES: "it cannot be written. Nothing is lost; give it to the user who starts Nigrographe, or choose another with NIGROGRAPHE_DATA",
    EROFS: "it cannot be written: the disk is read-only. Choose another folder with NIGROGRAPHE_DATA",
    ENOSPC: "the disk is full. Nothing saved is lost; make room (a few hundred megabytes) and start again",
    ENOTDIR: "a part of its path is a file. Choose another folder with NIGROGRAPHE_DATA",
  }[error.code];
  return `The data folder ${folder} cannot be used: ${because ?? error.message}.`;
}
