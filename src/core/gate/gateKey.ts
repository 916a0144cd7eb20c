import { strokesKey } from "../region/shapeKey";
import type { Gate } from "./gate";

/** Equal keys, equal gates; strokes by the objects they are. */
export function gateKey(gate: Gate): string {
  return `${JSON.stringify({ ...gate, repair: [] })} ${strokesKey(gate.repair)}`;
}
