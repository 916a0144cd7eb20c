import { useCallback, useRef, useState } from "react";
import { v4 as uuid } from "uuid";
import { importNames } from "./importNames";

export interface Import {
  id: string;
  name: string;
  state: "waiting" | "sending" | "reading" | "done" | "refused" | "cancelled";
  /** Part sent, 0–1. */
  part: number;
  reason?: string;
}

/** Files sent at the same time. */
const AT_ONCE = 2;
const MOST_BYTES = 1024 ** 3;

/** Brings files in, a few at a time, each with its progress; one that is refused does not hold up the others. */
export function useImports(onImported: () => void) {
  const [imports, setImports] = useState<Import[]>([]);
  const waiting = useRef<{ id: string; file: File; name: string }[]>([]);
  const running = useRef(new Map<string, XMLHttpRequest>());

  const change = useCallback((id: string, changed: Partial<Import>) => {
    setImports((all) => all.map((item) => (item.id === id ? { ...item, ...changed } : item)));
  }, []);

  const pump = useCallback(() => {
    const startNext = () => {
      while (running.current.size < AT_ONCE && waiting.current.length > 0) {
        const { id, file, name } = waiting.current.shift()!;
        const request = send(file, name, (changed) => change(id, changed));
        running.current.set(id, request);
        request.addEventListener("loadend", () => {
          running.current.delete(id);
          if (request.status === 201) onImported();
          startNext();
        });
      }
    };
    startNext();
  }, [change, onImported]);

  const bringIn = useCallback(
    (files: readonly File[]) => {
      const names = importNames(files);
      const added = files.map((file, i) => ({ id: uuid(), file, name: names[i]! }));
      setImports((all) => [
        ...all.filter(({ state }) => state !== "done"),
        ...added.map(({ id, name }): Import => ({ id, name, state: "waiting", part: 0 })),
      ]);
      for (const { id, file, name } of added) {
        if (file.size > MOST_BYTES) change(id, { state: "refused", reason: "the file is over 1 GB" });
        else waiting.current.push({ id, file, name });
      }
      pump();
    },
    [change, pump],
  );

  const cancel = useCallback(
    (id: string) => {
      waiting.current = waiting.current.filter((item) => item.id !== id);
      running.current.get(id)?.abort();
      change(id, { state: "cancelled" });
    },
    [change],
  );

  const dismiss = useCallback((id: string) => setImports((all) => all.filter((item) => item.id !== id)), []);
  return { imports, bringIn, cancel, dismiss };
}

function send(file: File, name: string, change: (changed: Partial<Import>) => void): XMLHttpRequest {
  // fetch cannot tell how much of a body has been sent.
  const request = new XMLHttpRequest();
  request.open("POST", `/api/pictures?name=${encodeURIComponent(name)}`);
  request.upload.onprogress = ({ loaded, total }) => change({ state: "sending", part: loaded / total });
  request.upload.onload = () => change({ state: "reading", part: 1 });
  request.onload = () => {
    if (request.status === 201) change({ state: "done" });
    else change({ state: "refused", reason: reasonOf(request.responseText) });
  };
  request.onerror = () => change({ state: "refused", reason: "the server could not be reached; nothing was stored, try again" });
  change({ state: "sending", part: 0 });
  request.send(file);
  return request;
}

function reasonOf(body: string): string {
  try {
    return (JSON.parse(body) as { title?: string }).title ?? "the server gave no reason";
  } catch {
    return "the server gave no reason";
  }
}
