"use client";
import { Button } from "antd";
import { useEffect, useRef, useState } from "react";
import type { Size } from "@/core/spatial/areaReduce";
import { useBench, useBenchState } from "../state/BenchContext";
import { geometryOf } from "@/features/picture-view/geometry";
import { drawMap, mapContent, mapSheet, type MapContent } from "./printingMap";
import styles from "./PrintingMap.module.css";

/** All regions of the print with what is done there, over the picture; to be kept as a PNG or a PDF page. */
export function PrintingMap({ size }: { size: Size }) {
  const { engine, start, store } = useBench();
  const plan = useBenchState((state) => state.plan);
  const isReady = useBenchState((state) => state.isReady);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [content, setContent] = useState<MapContent>();
  useEffect(() => {
    const asked = engine();
    if (!isReady || !asked) return;
    let isWanted = true;
    void mapContent(plan, asked).then((found) => isWanted && setContent(found));
    return () => {
      isWanted = false;
    };
  }, [plan, isReady, engine]);
  useEffect(() => {
    if (!content) return;
    const target = canvas.current!;
    target.width = Math.round(size.width * devicePixelRatio);
    target.height = Math.round(size.height * devicePixelRatio);
    drawMap(target.getContext("2d")!, geometryOf(plan.frame, start.prepared, target), content, false);
    target.dataset.drawn = String(content.entries.length);
  }, [content, plan.frame, start.prepared, size.width, size.height]);

  const keep = async (kind: "png" | "pdf") => {
    const asked = engine();
    if (!asked) return;
    try {
      const sheet = await mapSheet(plan, asked, start.prepared);
      const png = await new Promise<Blob>((resolve, reject) =>
        sheet.toBlob((blob) => (blob ? resolve(blob) : reject(new Error("the browser made no picture"))), "image/png"),
      );
      const title = `${start.picture.name}, ${start.print.name}`;
      save(kind === "png" ? png : await pdfPage(await png.arrayBuffer(), title), `${title} printing map.${kind}`);
    } catch {
      store.getState().set({ failure: "The map could not be made just now. Your print is safe; try again in a moment." });
    }
  };

  return (
    <>
      <canvas ref={canvas} className={styles.map} data-testid="printing-map" aria-label="Printing map" role="img" />
      <div className={styles.acts} onPointerDown={(event) => event.stopPropagation()}>
        {content?.entries.length === 0 && <span>No pass acts in a region yet.</span>}
        <Button size="small" onClick={() => void keep("png")}>
          Keep as PNG
        </Button>
        <Button size="small" onClick={() => void keep("pdf")}>
          Keep as PDF
        </Button>
      </div>
    </>
  );
}

/** A4, landscape or upright as the picture lies, the map as large as it fits. Loaded when it is asked for. */
async function pdfPage(png: ArrayBuffer, title: string): Promise<Blob> {
  const { PDFDocument, PageSizes } = await import("pdf-lib");
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  const image = await pdf.embedPng(png);
  const [short, long] = PageSizes.A4;
  const page = pdf.addPage(image.width > image.height ? [long, short] : [short, long]);
  const margin = 34;
  const { width, height } = image.scaleToFit(page.getWidth() - 2 * margin, page.getHeight() - 2 * margin);
  page.drawImage(image, { x: (page.getWidth() - width) / 2, y: (page.getHeight() - height) / 2, width, height });
  return new Blob([new Uint8Array(await pdf.save())], { type: "application/pdf" });
}

function save(blob: Blob, name: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
