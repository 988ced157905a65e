import type { ThemeConfig } from 'antd';
import { COLOUR, TEXT, through } from './tokens.js';

/** Surface-plate greys, one accent, square corners; figures in a monospaced instrument face. */
export const theme: ThemeConfig = {
  token: {
    colorPrimary: COLOUR.accent,
    colorInfo: COLOUR.accent,
    colorLink: COLOUR.accent,
    colorText: COLOUR.ink,
    colorTextSecondary: COLOUR.quiet,
    colorTextDescription: COLOUR.quiet,
    colorTextPlaceholder: COLOUR.faint,
    colorBgLayout: COLOUR.plate,
    colorBgContainer: COLOUR.paper,
    colorBorder: COLOUR.lineDark,
    colorBorderSecondary: COLOUR.line,
    colorError: COLOUR.fault,
    colorWarning: COLOUR.warning,
    colorSuccess: COLOUR.good,
    colorSuccessBg: COLOUR.goodWash,
    colorSuccessBorder: COLOUR.goodLine,
    colorErrorBg: COLOUR.faultWash,
    colorErrorBorder: COLOUR.faultLine,
    colorWarningBg: COLOUR.warningWash,
    colorWarningBorder: COLOUR.warningLine,
    colorInfoBg: COLOUR.accentWash,
    colorInfoBorder: COLOUR.accentLine,
    borderRadius: 2,
    borderRadiusLG: 2,
    borderRadiusSM: 2,
    fontFamily: "B612, 'DejaVu Sans', sans-serif",
    fontFamilyCode: "Figures, 'DejaVu Sans', monospace",
    fontSize: TEXT.body,
    controlHeight: 38,
    boxShadow: `0 1px 4px ${through('ink', 0.18)}`,
    boxShadowSecondary: `0 2px 8px ${through('ink', 0.22)}`,
    motion: false,
  },
  components: {
    Table: { cellPaddingBlock: 6, cellPaddingInline: 8, headerBg: COLOUR.head, headerBorderRadius: 0 },
    Button: { primaryShadow: 'none', defaultShadow: 'none' },
  },
};
