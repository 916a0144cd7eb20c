"use client";
import { useRef } from "react";
import { v4 as uuid } from "uuid";
import { packLevels } from "@/core/region/pictureLevels";
import { MOST_PICTURE_EDGE } from "@/core/region/region";
import { fitLongEdge, type Size } from "@/core/spatial/areaReduce";
import { useBench } from "../state/BenchContext";
import { addShape, regionName } from "../regions/regionEdits";
import styles from "./Panel.module.css";

/** Sides of a picture may differ by this much before it is said that it was stretched. */
const SAME_SHAPE = 0.01;

/** Takes a greyscale picture from a file as a shape of the region: white acts, black does not. */
export function ImportedPicture() {
  const { start, store } = useBench();
  const input = useRef<HTMLInputElement>(null);
  const onFile = async (file: File) => {
    const { set, drawing, commit } = store.getState();
    const bitmap = await createImageBitmap(file).catch(() => undefined);
    if (!bitmap) {
      return set({
        failure: `${file.name} could not be read as a picture. Save the mask as PNG or JPEG and bring that in; nothing was changed.`,
      });
    }
    const { width, height } = fitLongEdge(start.picture, MOST_PICTURE_EDGE);
    const levels = packLevels(greyLevels(bitmap, { width, height }));
    if (!addShape(store, { id: uuid(), combine: drawing.combine, kind: "picture", width, height, levels })) return;
    commit(`${file.name} as a mask in ${regionName(store)}`);
    const [own, its] = [start.picture.width / start.picture.height, bitmap.width / bitmap.height];
    if (Math.abs(own / its - 1) > SAME_SHAPE) set({ notice: "The mask has not the shape of this picture: it was stretched to it." });
  };
  return (
    <div className={styles.row}>
      <button type="button" className={styles.small} onClick={() => input.current!.click()}>
        Mask from a file…
      </button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        hidden
        aria-label="Mask from a file"
        data-testid="mask-file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = "";
          if (file) void onFile(file);
        }}
      />
    </div>
  );
}

/** The picture's grey as it is written, at a size; what is see-through is black. */
function greyLevels(bitmap: ImageBitmap, { width, height }: Size): Uint8Array {
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true })!;
  context.fillStyle = "#000";
  context.fillRect(0, 0, width, height);
  context.imageSmoothingQuality = "high";
  context.drawImage(bitmap, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  return Uint8Array.from({ length: width * height }, (_, i) => Math.round((data[4 * i]! + data[4 * i + 1]! + data[4 * i + 2]!) / 3));
}
