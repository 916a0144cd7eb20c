import { AntdRegistry } from "@ant-design/nextjs-registry";
import { App, ConfigProvider } from "antd";
import type { Metadata } from "next";
import type { ReactNode } from "react";
import { Queries } from "@/features/shared/Queries";
import { theme } from "@/theme/theme";
import "@/theme/tokens.css";

export const metadata: Metadata = {
  title: { default: "Nigrographe", template: "%s · Nigrographe" },
  description: "A printing bench for fine-art black-and-white photographs.",
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <body>
        <AntdRegistry>
          <ConfigProvider theme={theme}>
            {/* Below bar and ribbon, and never more than one. */}
            <App message={{ top: 128, maxCount: 1 }}>
              <Queries>{children}</Queries>
            </App>
          </ConfigProvider>
        </AntdRegistry>
      </body>
    </html>
  );
}
