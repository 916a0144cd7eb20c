import { strokesKey } from "../brush/strokesKey";
import type { Gate } from "./gate";

/** Equal keys, equal gates. */
export function gateKey(gate: Gate): string {
  return `${JSON.stringify({ ...gate, repair: [] })} ${strokesKey(gate.repair)}`;
}
