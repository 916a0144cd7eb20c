import { Input, type ModalFuncProps } from "antd";
import { MOST_NAME } from "@/contracts/api";

/** What a dialog says that asks for another name: Enter takes it, a name of nothing changes nothing. */
export function askName(title: string, now: string, take: (name: string) => unknown): ModalFuncProps {
  let name = now;
  return {
    icon: null,
    title,
    okText: "Rename",
    autoFocusButton: null,
    content: (
      <Input
        defaultValue={now}
        maxLength={MOST_NAME}
        aria-label={title}
        autoFocus
        onFocus={(event) => event.target.select()}
        onChange={(event) => (name = event.target.value)}
        onPressEnter={(event) =>
          event.currentTarget.closest<HTMLElement>(".ant-modal")?.querySelector<HTMLElement>(".ant-btn-primary")?.click()
        }
      />
    ),
    onOk: () => (name.trim() && name !== now ? take(name) : undefined),
  };
}
