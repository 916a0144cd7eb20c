"use client";

import { App, Button } from "antd";
import { Menu } from "@/features/shared/Menu";

/** Signs out, in this browser or in all; shown where a passphrase is asked for. */
export function SignOut() {
  const { message } = App.useApp();
  const signOut = async (query: string) => {
    const response = await fetch(`/api/session${query}`, { method: "DELETE" }).catch(() => undefined);
    if (response?.ok) return location.assign("/sign-in");
    void message.error("That did not reach the server. You are still signed in; try again in a moment.");
  };
  return (
    <Menu
      items={[
        { key: "here", label: "In this browser" },
        { key: "everywhere", label: "In all browsers" },
      ]}
      onPick={(key) => void signOut(key === "everywhere" ? "?everywhere" : "")}
    >
      <Button>Sign out</Button>
    </Menu>
  );
}
