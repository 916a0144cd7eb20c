import type { ThemeConfig } from "antd";

/** Ant Design in the bench's daylight: ink on paper, one lamp-orange accent. */
export const theme: ThemeConfig = {
  token: {
    fontFamily: '"Archivo Variable", sans-serif',
    fontSize: 13,
    colorPrimary: "#ad4f0d",
    // What has the focus is ringed with it: 3:1 on paper and on the dark bar.
    colorPrimaryBorder: "#ad4f0d",
    lineWidthFocus: 2,
    colorLink: "#ad4f0d",
    colorError: "#9c2b12",
    colorTextPlaceholder: "#6f6c66",
    colorText: "#19191b",
    colorTextSecondary: "#5d5b57",
    colorBgBase: "#fbfaf7",
    colorBgContainer: "#fbfaf7",
    colorBgElevated: "#fbfaf7",
    colorBorder: "#d0ccc4",
    borderRadius: 4,
    controlHeight: 28,
    controlHeightSM: 24,
    motionDurationMid: "0.12s",
    motionDurationSlow: "0.16s",
  },
  components: {
    Button: { primaryShadow: "none", defaultShadow: "none" },
    Segmented: { trackPadding: 0 },
    Modal: { titleFontSize: 17 },
  },
};
