import type { Stroke } from "../brush/stroke";
import { luminanceToTone } from "../colour/lstar";
import type { Vector3 } from "../colour/matrix3";
import { LUMINANCE_WEIGHTS, type Weights } from "../mix/weights";
import { LAST_ZONE } from "../zones/zone";
import type { Length, Tone, Zone } from "../units";

/** What a gate reads a place's tone from. */
export const GATE_SOURCES = ["entering", "mixed", "lightness", "red", "green", "blue", "own"] as const;
/** The tone that enters the pass, the mixed tone, the original's L*, one of its channels, or a mix of the gate's own. */
export type GateSource = (typeof GATE_SOURCES)[number];

/** The original's hues a gate lets through. */
export interface HueLimit {
  /** OKLCH hue in degrees. */
  centreDeg: number;
  /** How far to either side it lets all through. */
  widthDeg: number;
  /** From there to nothing. */
  shoulderDeg: number;
  /** All but these. */
  invert: boolean;
}

/** The tones a pass acts on. Units: zones. */
export interface Gate {
  source: GateSource;
  /** Of the mix of its own. */
  weights: Weights;
  /** Between these it lets all through. */
  from: Zone;
  to: Zone;
  /** How far below `from` and above `to` it still lets some through; 0 ends sharply. */
  low: Zone;
  high: Zone;
  /** Whether shoulders are straight lines rather than a raised cosine. */
  linear: boolean;
  invert: boolean;
  /** Times the membership is multiplied by itself. */
  narrow: number;
  /** Standard deviation of a blur over the mask, in long edges. */
  blur: Length;
  hue: HueLimit | null;
  /** Strokes that let more through, or less, whatever the tone. */
  repair: Stroke[];
}

export const MOST_NARROW = 4;
export const MOST_SHOULDER = 10;
export const MOST_GATE_BLUR = 0.1;
/** Blurs are gathered from the picture at some 640 pixels: finer than a pixel or so there they would blur by its pixels instead. */
const LEAST_GATE_BLUR = 0.002;

/** A gate of a pass before the mix: there is no tone yet but the original's. */
export function gateBeforeMix(gate: Gate): Gate {
  return gate.source === "entering" || gate.source === "mixed" ? { ...gate, source: "lightness" } : gate;
}

/** How a gate weighs the original's linear channels; undefined where it reads a tone of the print. */
export function weightsRead({ source, weights }: Pick<Gate, "source" | "weights">): Weights | undefined {
  switch (source) {
    case "entering":
    case "mixed":
      return undefined;
    case "lightness":
      return LUMINANCE_WEIGHTS;
    case "own":
      return weights;
    case "red":
    case "green":
    case "blue":
      return { red: 0, green: 0, blue: 0, [source]: 1 };
  }
}

/** What is known of a place: the tones that enter a pass and were mixed, 0–1, and its colour in linear P3. */
export interface TouchedPlace {
  entering: Tone;
  mixed: Tone;
  colour: Vector3;
}

/** Whether a gate looks at more of the original's colour than its light. */
export function readsColour(gate: Gate): boolean {
  return gate.hue !== null || !(gate.source === "lightness" || weightsRead(gate) === undefined);
}

/** The tone a gate reads at a place, 0–1. */
export function toneRead(gate: Pick<Gate, "source" | "weights">, { entering, mixed, colour: [r, g, b] }: TouchedPlace): number {
  const weights = weightsRead(gate);
  if (!weights) return gate.source === "mixed" ? mixed : entering;
  const light = weights.red * r + weights.green * g + weights.blue * b;
  return luminanceToTone(Math.min(Math.max(light, 0), 1));
}

/** Lets all tones through. */
export function openGate(): Gate {
  return {
    source: "entering",
    weights: { red: 0.25, green: 0.65, blue: 0.1 },
    from: 0,
    to: 10,
    low: 1,
    high: 1,
    linear: false,
    invert: false,
    narrow: 0,
    blur: 0,
    hue: null,
    repair: [],
  };
}

/** The gate of one whole zone; those of all eleven sum to 1 everywhere. */
export function zoneGate(zone: Zone): Gate {
  return { ...openGate(), from: zone, to: zone, low: 1, high: 1 };
}

/** How far a tone is let through before hue and blur, 0–1. Units: zones in. */
export function gateShare({ from, to, low, high, linear, invert, narrow }: Gate, zone: Zone): number {
  const membership = Math.min(shoulder(zone - from, low, linear), shoulder(to - zone, high, linear));
  const share = invert ? 1 - membership : membership;
  return narrow === 0 ? share : share ** (2 ** narrow);
}

/** 1 from 0 on, down to 0 over `width` below it. */
function shoulder(inside: number, width: number, linear: boolean): number {
  if (inside >= 0) return 1;
  if (-inside >= width) return 0;
  const u = 1 + inside / width;
  return linear ? u : 0.5 - 0.5 * Math.cos(Math.PI * u);
}

/** How far a hue is let through, 0–1, before it fades with chroma. Units: degrees. */
export function hueShare({ centreDeg, widthDeg, shoulderDeg }: HueLimit, hueDeg: number): number {
  const away = Math.abs(((((hueDeg - centreDeg) % 360) + 540) % 360) - 180);
  return shoulder(widthDeg - away, shoulderDeg, false);
}

/** Whether the tone entering the pass decides at each place by itself, so that the gate is a part of the pass's own curve. */
export function readsEnteringTone(gate: Gate): boolean {
  return gate.source === "entering" && !isBlurred(gate) && gate.repair.length === 0;
}

/** Whether a gate is read from the entering tone on the way, because strokes on it let more or less through. */
export function isRepairedOnTheWay(gate: Gate): boolean {
  return gate.source === "entering" && !isBlurred(gate) && gate.repair.length > 0;
}

/** Whether a gate's mask is blurred: a blur too fine to be gathered is none. */
export function isBlurred({ blur }: Pick<Gate, "blur">): boolean {
  return blur >= LEAST_GATE_BLUR;
}

/** The ends of a gate that have a shoulder. */
export type Shoulder = "low" | "high";

/**
 * The shoulders that are so hard, for a pass that moves tones by up to `change` zones, that an edge may show: tones are held there to keep
 * their order, or torn apart as far. Units: zones.
 */
export function hardShoulders({ from, to, low, high, linear }: Gate, change: Zone): Shoulder[] {
  const steepest = change * (linear ? 1 : Math.PI / 2);
  const hard: Shoulder[] = [];
  if (from > 0 && steepest > low) hard.push("low");
  if (to < LAST_ZONE && steepest > high) hard.push("high");
  return hard;
}
