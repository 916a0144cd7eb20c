"use client";
import { Button } from "antd";
import { useEffect, useState } from "react";
import { LineSheet } from "./LineSheet";

const LINES = {
  "Bringing pictures in": [
    {
      shown: "Drop, paste, choose",
      words: "JPEG, PNG, TIFF, WebP or AVIF, developed in colour, 8 or 16 bit; they are stored as they are and never changed",
    },
    { shown: "Files of one name", words: "take their folder's before it" },
  ],
  Pictures: [
    { shown: "Press on a picture", words: "its first print, on the bench" },
    { shown: "Colour", words: "the picture in its own colours, as long as its button is pointed at" },
    { shown: "The five marks", words: "rate it: by press, by 0 to 5, or by arrows" },
    { shown: "More", words: "another print, rename, move to the bin" },
  ],
  Prints: [
    { shown: "Press on its name", words: "opens it on the bench; every step of it is kept" },
    { shown: "More", words: "rename it, duplicate it with its whole history, move it to the bin" },
  ],
  "The bin": [{ shown: "30 days", words: "what was moved there can be brought back; only there is anything deleted for good" }],
};

/** A page of help for the contact sheet and the bin, by its button or its key. */
export function SheetHelp() {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const onKey = ({ key, target }: KeyboardEvent) => {
      if (key === "?" && !(target as HTMLElement).matches("input, textarea")) setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <Button type="text" style={{ color: "inherit" }} aria-label="Help" onClick={() => setOpen(true)}>
        ?
      </Button>
      <LineSheet title="What can be done here" lines={LINES} isOpen={isOpen} width={900} onClose={() => setOpen(false)} />
    </>
  );
}
