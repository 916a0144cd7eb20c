"use client";
import { useEffect, useRef, useState } from "react";
import { Menu } from "../shared/Menu";
import styles from "./ContactSheet.module.css";

interface Props<K extends string> {
  /** What the menu is for. */
  name: string;
  items: readonly { key: K; label: string; danger?: boolean }[];
  onPick(key: K): void;
}

/** A menu behind a button, made when it is first pressed: hundreds of cards come and go with every letter of a search. */
export function MoreMenu<K extends string>({ name, items, onPick }: Props<K>) {
  const [isAwake, setAwake] = useState(false);
  const [isOpen, setOpen] = useState(true);
  const button = useRef<HTMLButtonElement>(null);
  // The button that was pressed gave way to the menu's own.
  useEffect(() => {
    if (isAwake) button.current?.focus();
  }, [isAwake]);
  const face = { type: "button", className: styles.quiet, "aria-label": `More for ${name}`, "aria-haspopup": "menu" } as const;
  if (!isAwake)
    return (
      <button {...face} onClick={() => setAwake(true)}>
        More
      </button>
    );
  return (
    <Menu open={isOpen} onOpenChange={setOpen} items={[...items]} onPick={(key) => onPick(key as K)}>
      <button {...face} ref={button} aria-expanded={isOpen}>
        More
      </button>
    </Menu>
  );
}
