import styles from "./SkipLinks.module.css";

/**
 * Ways past what stands before the work, seen once they have the focus. `to`: their words, by the id of what they lead to, which takes the
 * focus.
 */
export function SkipLinks({ to }: { to: Record<string, string> }) {
  return (
    <nav className={styles.skips} aria-label="Skip to">
      {Object.entries(to).map(([id, words]) => (
        <a key={id} href={`#${id}`}>
          {words}
        </a>
      ))}
    </nav>
  );
}
