"use client";
import { App, Button } from "antd";
import type { PictureChange, PrintChange } from "@/contracts/api";
import { askServer } from "../shared/askServer";

/**
 * Changes pictures and prints of the sheet; what was moved to the bin can be brought back from a message. Shows the sheet anew once it is
 * done.
 */
export function useChange(onChanged: () => void) {
  const { message } = App.useApp();
  const failed = () => void message.error("That did not reach the server. Nothing was changed; try again in a moment.");
  const change = async (path: string, to: PictureChange | PrintChange): Promise<boolean> => {
    const done = await askServer("PATCH", path, to);
    if (done) onChanged();
    else failed();
    return done !== undefined;
  };
  const moveToBin = async (path: string, name: string) => {
    if (!(await change(path, { deleted: true }))) return;
    const key = `bin ${path}`;
    const bringBack = () => {
      message.destroy(key);
      void change(path, { deleted: false });
    };
    void message.open({
      key,
      type: "info",
      duration: 10,
      content: (
        <>
          {name} is in the bin.{" "}
          <Button size="small" type="link" onClick={bringBack}>
            Undo
          </Button>
        </>
      ),
    });
  };
  return { change, moveToBin, failed };
}
