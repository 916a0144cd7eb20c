import { Modal } from "antd";
import styles from "./HelpSheet.module.css";

const KEYS: [string, string][] = [
  ["0 … 9, T", "light a zone (T is ten); again, or Esc, for all"],
  ["S", "stepped view"],
  ["C", "source colour"],
  ["X", "what the step in hand changes, on mid grey"],
  ["Y", "what is painted in an exposure pass, on mid grey"],
  ["J", "printing map: all regions and what is done there"],
  ["U", "the print only as far as the step in hand"],
  ["V", "show full black as lines, bare paper as dots"],
  ["Q, held", "before the step in hand"],
  ["W, held", "the mask of the pass alone: white acts, black does not"],
  ["A, held", "the pass as if it acted everywhere"],
  ["K", "lines and hatch of the region on and off"],
  ["[, ], Shift+wheel, Ctrl+drag", "brush smaller, larger"],
  ["D, B", "dodge, burn: in an exposure pass"],
  ["E", "brush lays on or erases; Alt while painting turns it round"],
  ["Shift+click, brush", "straight line from the last place"],
  ["Enter, Backspace, Esc", "close a polygon, take back a corner, let go"],
  ["N, P", "next and previous step"],
  ["O", "pass or set on and off"],
  ["R, H, L, I, M", "read, pull hue, pull tone, pin, move"],
  ["Space, held", "drag the picture"],
  ["+, −, wheel", "zoom"],
  ["F, G", "whole picture, one to one"],
  ["Ctrl+Z, Ctrl+Shift+Z", "undo, redo"],
  ["Arrows on a strand", "place it; with Alt, take another tone; with Shift, ten times"],
  ["Ctrl+click on strands", "take several in hand; they move together"],
  ["Enter, Delete on a strand", "hold it, remove it"],
  ["Alt while dragging", "no snapping"],
  ["Shift while dragging", "push the neighbouring strands along"],
  ["Drag on the lower rail", "lift or lower that zone alone"],
];

/** One page of keys. */
export function HelpSheet({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  return (
    <Modal title="Keys" open={isOpen} onCancel={onClose} footer={null} width={520}>
      <dl className={styles.keys}>
        {KEYS.map(([key, words]) => (
          <div key={key}>
            <dt>{key}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
