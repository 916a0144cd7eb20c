import { Modal } from "antd";
import styles from "./LineSheet.module.css";

interface Props {
  title: string;
  /** Lines of what is done and how, by what they are about. */
  lines: Readonly<Record<string, readonly { shown: string; words: string }[]>>;
  isOpen: boolean;
  width?: number;
  onClose(): void;
}

/** One page of help. */
export function LineSheet({ title, lines, isOpen, width = 1080, onClose }: Props) {
  return (
    <Modal title={title} open={isOpen} onCancel={onClose} footer={null} width={width} style={{ top: 40 }}>
      <div className={styles.sheet}>
        {Object.entries(lines).map(([what, some]) => (
          <section key={what}>
            <h3>{what}</h3>
            <dl className={styles.keys}>
              {some.map(({ shown, words }) => (
                <div key={shown}>
                  <dt>{shown}</dt>
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
