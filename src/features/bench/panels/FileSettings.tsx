"use client";
import { Segmented, Select, Switch } from "antd";
import { z } from "zod";
import {
  EXPORT_FORMATS,
  EXPORT_FORMAT_FACTS,
  ExportSettings,
  JPEG_QUALITY,
  LEAST_SMOOTH_QUALITY,
  MOST_RESOLUTION,
  RESOLUTION,
} from "@/contracts/exportSettings";
import type { OutputSharpening } from "@/core/passes/sharpen/forOutput";
import type { Size } from "@/core/spatial/areaReduce";
import { useKept } from "@/features/shared/useKept";
import { ValueField } from "@/features/shared/ValueField";
import { ValueSlider } from "@/features/shared/ValueSlider";
import styles from "./Panel.module.css";

const FileWishes = ExportSettings.omit({ maskOf: true }).extend({ format: z.enum(EXPORT_FORMATS).default("tiff16") });
/** How prints are written as files. The long edge may be more than this print's, which is never enlarged. */
export type FileWishes = z.infer<typeof FileWishes>;

const readWishes = (json: unknown): FileWishes => FileWishes.safeParse(json).data ?? FileWishes.parse({});

/** How files are wished, remembered from print to print. */
export function useFileWishes() {
  return useKept("file", readWishes);
}

/** How colour laid on a print is written. */
const COLOURS: { value: FileWishes["colour"]; label: string; title: string }[] = [
  { value: "srgb", label: "sRGB", title: "For any screen and service" },
  { value: "display-p3", label: "Display P3", title: "For wide-gamut screens and printers that read profiles" },
  { value: "grey", label: "Grey", title: "The tones alone" },
];

interface Props {
  /** Whether it carries colour. */
  isColoured: boolean;
  /** The print at full size. */
  print: Size;
  wishes: FileWishes;
  onChange(wishes: FileWishes): void;
}

/** For the size of the file, after all else: what reducing and paper soften. */
const SHARPENINGS: { value: OutputSharpening; label: string; title: string }[] = [
  { value: "none", label: "No", title: "As it is on the bench" },
  { value: "gentle", label: "Gently", title: "For a screen or a smooth paper" },
  { value: "strong", label: "Strongly", title: "For a rough paper" },
];

const CM_IN_INCH = 2.54;
const CM = new Intl.NumberFormat("en-GB", { maximumFractionDigits: 1, minimumFractionDigits: 1 });

/** Format, size in pixels and on paper, and what of the original's notes goes along. */
export function FileSettings({ isColoured, print, wishes, onChange }: Props) {
  const { format, quality, colour, longEdge, sharpen, resolution, capture, place } = wishes;
  const change = (changed: Partial<FileWishes>) => onChange({ ...wishes, ...changed });
  const full = Math.max(print.width, print.height);
  const scale = Math.min(1, (longEdge ?? full) / full);
  const cm = (pixels: number) => CM.format((CM_IN_INCH * Math.round(scale * pixels)) / resolution);
  const toggle = (label: string, words: string, isOn: boolean, changed: (on: boolean) => Partial<FileWishes>, disabled = false) => (
    <div className={styles.row}>
      <Switch size="small" checked={isOn} disabled={disabled} aria-label={label} onChange={(on) => change(changed(on))} />
      <span className={styles.hint}>{words}</span>
    </div>
  );
  return (
    <>
      <div className={styles.row}>
        <Select
          size="small"
          style={{ width: "100%" }}
          aria-label="Format"
          value={format}
          onChange={(chosen) => change({ format: chosen })}
          options={EXPORT_FORMATS.map((value) => ({ value, label: EXPORT_FORMAT_FACTS[value].label }))}
        />
      </div>
      {format === "jpeg" && (
        <ValueSlider
          label="Quality"
          value={quality}
          min={1}
          max={100}
          step={1}
          rest={JPEG_QUALITY}
          format={String}
          onChange={(value) => change({ quality: value })}
        />
      )}
      {format === "jpeg" && quality < LEAST_SMOOTH_QUALITY && (
        <p className={styles.hint} role="status">
          At this quality a smooth sky may show steps. {JPEG_QUALITY} keeps it smooth; PNG and TIFF keep every level.
        </p>
      )}
      {isColoured && (
        <div className={styles.row}>
          <span className={styles.fieldName}>Colour</span>
          <Segmented<FileWishes["colour"]>
            size="small"
            aria-label="How colour is written"
            value={colour}
            options={COLOURS}
            onChange={(chosen) => change({ colour: chosen })}
          />
        </div>
      )}
      <ValueField
        label="Long edge"
        note={`pixels, ${scale < 1 ? "reduced" : "full size"}`}
        value={longEdge ?? full}
        min={16}
        max={60000}
        rest={full}
        onChange={(value) => change({ longEdge: value === full ? undefined : value })}
      />
      <div className={styles.row}>
        <span className={styles.fieldName}>Sharpened</span>
        <Segmented<OutputSharpening>
          size="small"
          aria-label="Sharpened for its size"
          value={sharpen}
          options={SHARPENINGS}
          onChange={(chosen) => change({ sharpen: chosen })}
        />
      </div>
      <ValueField
        label="To the inch"
        note={`${cm(print.width)} × ${cm(print.height)} cm`}
        value={resolution}
        min={1}
        max={MOST_RESOLUTION}
        rest={RESOLUTION}
        onChange={(value) => change({ resolution: value })}
      />
      {toggle("Capture data", "Camera, exposure, dates, copyright go along", capture, (on) => ({ capture: on }))}
      {toggle("Place", "The place too, where it is known", capture && place, (on) => ({ place: on }), !capture)}
    </>
  );
}
