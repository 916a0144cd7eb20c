"use client";
import { Dropdown, type MenuProps } from "antd";
import { useRef, useState, type ReactElement } from "react";
import styles from "./Menu.module.css";

interface Props {
  items: MenuProps["items"];
  /** Called with the key of what was chosen; items may have acts of their own instead. */
  onPick?(key: string): void;
  /** Items side by side in so many columns instead of one below the other. */
  columns?: number;
  open?: boolean;
  onOpenChange?(isOpen: boolean): void;
  /** The button. */
  children: ReactElement;
}

/** The menu of a button: never higher than there is room on one side of it, with the focus in it while it is open. */
export function Menu({ items, onPick, columns = 1, open, onOpenChange, children }: Props) {
  const [isOpen, setOpen] = useState(false);
  const place = useRef<HTMLSpanElement>(null);
  const isWanted = useRef(open ?? false);
  const giveBack = () => (place.current!.firstElementChild as HTMLElement).focus({ preventScroll: true });
  const menu: MenuProps = {
    ...(items && { items }),
    className: styles.menu,
    style: { gridTemplateColumns: `repeat(${columns}, auto)` },
    onClick({ key, domEvent }) {
      domEvent.preventDefault(); // Enter, the focus given back meanwhile, would press the button and open it again
      turn(false);
      onPick?.(key);
    },
    // The menu takes the focus three frames after it opens, and by then something may be chosen already.
    onFocus: () => isWanted.current || giveBack(),
  };
  const turn = (open: boolean) => {
    isWanted.current = open;
    setOpen(open);
    const focused = document.activeElement;
    // The focus would be lost with the menu.
    if (!open && (focused === document.body || focused?.closest(".ant-dropdown"))) giveBack();
    onOpenChange?.(open);
  };
  return (
    <span ref={place} className={styles.place}>
      <Dropdown trigger={["click"]} autoFocus menu={menu} open={open ?? isOpen} onOpenChange={turn}>
        {children}
      </Dropdown>
    </span>
  );
}
