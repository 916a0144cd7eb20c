import { Modal } from "antd";
import styles from "./HelpSheet.module.css";

const KEYS: Record<string, [keys: string, words: string][]> = {
  Looking: [
    ["0 … 9, T", "light a zone (T is ten); again, or Esc, for all"],
    ["S", "stepped view"],
    ["C", "source colour"],
    ["X", "what the step in hand changes, on mid grey"],
    ["Y", "what is painted in an exposure pass, on mid grey"],
    ["J", "printing map: all regions and what is done there"],
    ["U", "the print only as far as the step in hand"],
    ["V", "show full black as lines, bare paper as dots"],
    ["Q, held", "before the step in hand"],
    ["W, held", "the mask of the pass alone: white acts"],
    ["A, held", "the pass as if it acted everywhere"],
    ["K", "lines and hatch of the region on and off"],
    ["F, G", "whole picture, one to one"],
    ["+, −, wheel", "zoom"],
    ["Space, held", "drag the picture"],
  ],
  "Steps of the print": [
    ["N, P", "next and previous step"],
    ["O", "pass or set on and off"],
    ["Ctrl+Z, Ctrl+Shift+Z", "undo, redo"],
  ],
  "In the picture": [
    ["R, H, L, I, M", "read, pull hue, pull tone, pin, move"],
    ["D, B", "dodge, burn: in an exposure pass, under way too"],
    ["E", "brush lays on or erases; Alt while painting turns it round"],
    ["[, ], Shift+wheel, Ctrl+drag", "brush smaller, larger"],
    ["Shift+click, brush", "straight line from the last place"],
    ["Enter, Backspace, Esc", "close a polygon, take back a corner, let go"],
  ],
  "On the scale and in the panel": [
    ["Arrows on a strand", "place it; with Alt, take another tone; with Shift, ten times"],
    ["Ctrl+click on strands", "take several in hand; they move together"],
    ["Enter, Delete on a strand", "hold it, remove it"],
    ["Alt while dragging", "no snapping"],
    ["Shift while dragging", "push the neighbouring strands along"],
    ["Drag on the lower rail", "lift or lower that zone alone"],
    ["Drag across zone switches", "the pass acts on just those"],
    ["Double click on a slider", "back to rest; figures can be typed: VII½, −2/3"],
  ],
};

/** One page of keys. */
export function HelpSheet({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  return (
    <Modal title="Keys" open={isOpen} onCancel={onClose} footer={null} width={1080} style={{ top: 40 }}>
      <div className={styles.sheet}>
        {Object.entries(KEYS).map(([what, keys]) => (
          <section key={what}>
            <h3>{what}</h3>
            <dl className={styles.keys}>
              {keys.map(([key, words]) => (
                <div key={key}>
                  <dt>{key}</dt>
                  <dd>{words}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Modal>
  );
}
