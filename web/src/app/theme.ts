import type { ThemeConfig } from 'antd';

const ACCENT = '#31418C';

/** Surface-plate greys, one accent, square corners; figures in a monospaced instrument face. */
export const theme: ThemeConfig = {
  token: {
    colorPrimary: ACCENT,
    colorInfo: ACCENT,
    colorLink: ACCENT,
    colorText: '#20272b',
    colorTextSecondary: '#465057',
    colorTextDescription: '#465057',
    colorTextPlaceholder: '#646e75',
    colorBgLayout: '#e9ecee',
    colorBgContainer: '#fbfcfc',
    colorBorder: '#9aa4aa',
    colorBorderSecondary: '#c9cfd3',
    colorError: '#9b2c1d',
    colorWarning: '#8a5a00',
    colorSuccess: '#2c6144',
    colorSuccessBg: '#e2ebe5',
    colorSuccessBorder: '#8fab9a',
    colorErrorBg: '#f6e5e1',
    colorErrorBorder: '#cf9a90',
    colorWarningBg: '#f7eedb',
    colorWarningBorder: '#c9ad77',
    colorInfoBg: '#e5e8f3',
    colorInfoBorder: '#a3acd2',
    borderRadius: 2,
    borderRadiusLG: 2,
    borderRadiusSM: 2,
    fontFamily: "B612, 'DejaVu Sans', sans-serif",
    fontFamilyCode: "Figures, 'DejaVu Sans', monospace",
    fontSize: 15,
    controlHeight: 38,
    boxShadow: '0 1px 4px rgba(32,39,43,.18)',
    boxShadowSecondary: '0 2px 8px rgba(32,39,43,.22)',
    motion: false,
  },
  components: {
    Table: { cellPaddingBlock: 6, cellPaddingInline: 8, headerBg: '#dfe3e6', headerBorderRadius: 0 },
    Button: { primaryShadow: 'none', defaultShadow: 'none' },
  },
};
