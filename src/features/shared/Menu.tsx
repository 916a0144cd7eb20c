"use client";
import { Dropdown, type DropdownProps, type MenuProps } from "antd";
import { useRef, type ReactElement } from "react";
import styles from "./Menu.module.css";

interface Props {
  items: MenuProps["items"];
  /** Called with the key of what was chosen; items may have acts of their own instead. */
  onPick?(key: string): void;
  /** Items side by side in so many columns instead of one below the other. */
  columns?: number;
  open?: boolean;
  onOpenChange?: DropdownProps["onOpenChange"];
  /** The button. */
  children: ReactElement;
}

/** The menu of a button: never higher than there is room on one side of it, with the focus in it while it is open. */
export function Menu({ items, onPick, columns = 1, open, onOpenChange, children }: Props) {
  const place = useRef<HTMLSpanElement>(null);
  const isWanted = useRef(open ?? false);
  const giveBack = () => (place.current!.firstElementChild as HTMLElement).focus({ preventScroll: true });
  const menu: MenuProps = {
    ...(items && { items }),
    className: styles.menu,
    style: { gridTemplateColumns: `repeat(${columns}, auto)` },
    onClick: ({ key }) => onPick?.(key),
    // The menu takes the focus three frames after it opens, and by then something may be chosen already.
    onFocus: () => isWanted.current || giveBack(),
  };
  // The focus would be lost with the menu.
  const follow: DropdownProps["onOpenChange"] = (isOpen, info) => {
    isWanted.current = isOpen;
    const focused = document.activeElement;
    if (!isOpen && (focused === document.body || focused?.closest(".ant-dropdown"))) giveBack();
    onOpenChange?.(isOpen, info);
  };
  return (
    <span ref={place} className={styles.place}>
      <Dropdown trigger={["click"]} autoFocus menu={menu} {...(open !== undefined && { open })} onOpenChange={follow}>
        {children}
      </Dropdown>
    </span>
  );
}
