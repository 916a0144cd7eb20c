import { Modal } from "antd";
import { KEY_LINES } from "./keys";
import styles from "./HelpSheet.module.css";

/** One page of keys. */
export function HelpSheet({ isOpen, onClose }: { isOpen: boolean; onClose(): void }) {
  return (
    <Modal title="Keys" open={isOpen} onCancel={onClose} footer={null} width={1080} style={{ top: 40 }}>
      <div className={styles.sheet}>
        {Object.entries(KEY_LINES).map(([what, lines]) => (
          <section key={what}>
            <h3>{what}</h3>
            <dl className={styles.keys}>
              {lines.map(({ shown, words }) => (
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
