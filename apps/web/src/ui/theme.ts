import { theme as antd, type ThemeConfig } from 'antd';

/** Every colour of the application, once for paper and once for the dim bench. No other file names a colour. */
export interface Palette {
  readonly paper: string;
  readonly panel: string;
  readonly sunk: string;
  readonly line: string;
  readonly ink: string;
  readonly dim: string;
  readonly action: string;
  readonly actionInk: string;
  readonly select: string;
  readonly marked: string;
  readonly found: string;
  readonly planned: string;
  readonly proven: string;
  readonly in: string;
  readonly edge: string;
  readonly out: string;
  readonly unsure: string;
  readonly tag: string;
  readonly tagLine: string;
  readonly flag: string;
}

const PAPER: Palette = {
  paper: '#f4f1ea',
  panel: '#fffdf8',
  sunk: '#ebe6db',
  line: '#d8d1c2',
  ink: '#24272c',
  dim: '#5f646c',
  action: '#2c4a94',
  actionInk: '#ffffff',
  select: '#e9eef9',
  marked: '#5b6472',
  found: '#0b7a75',
  planned: '#b25e09',
  proven: '#6b4bb8',
  in: '#2f7d4f',
  edge: '#8a5f00',
  out: '#b3261e',
  unsure: '#5f646c',
  tag: '#f7e9c8',
  tagLine: '#d9c38b',
  flag: '#f1ece0',
};

const DIM_BENCH: Palette = {
  paper: '#16191d',
  panel: '#1e2227',
  sunk: '#14171a',
  line: '#323841',
  ink: '#e8e3d8',
  dim: '#a4a9b1',
  action: '#9db4f0',
  actionInk: '#16191d',
  select: '#28324a',
  marked: '#a9b2c0',
  found: '#4fc4bd',
  planned: '#e2984a',
  proven: '#b49cf0',
  in: '#6cc492',
  edge: '#d8ad4a',
  out: '#f0857d',
  unsure: '#a4a9b1',
  tag: '#3b3424',
  tagLine: '#6b5d38',
  flag: '#2a2f36',
};

export type Mode = 'paper' | 'dim';
export const PALETTES: Readonly<Record<Mode, Palette>> = { paper: PAPER, dim: DIM_BENCH };

export const WORD_FONT = "'Inter Variable', system-ui, sans-serif";
export const VALUE_FONT = "'JetBrains Mono Variable', ui-monospace, monospace";
const BODY_SIZE = 13;
const ROW_PADDING = 4;

/** The palette as CSS variables: --zb-paper and so on. */
export function cssVariables(mode: Mode): Record<string, string> {
  return Object.fromEntries(Object.entries(PALETTES[mode]).map(([name, value]) => [`--zb-${name}`, value]));
}

/** The component library in our tokens. */
export function antdTheme(mode: Mode): ThemeConfig {
  const p = PALETTES[mode];
  return {
    algorithm: mode === 'dim' ? antd.darkAlgorithm : antd.defaultAlgorithm,
    token: {
      colorPrimary: p.action,
      colorInfo: p.action,
      colorLink: p.action,
      colorLinkHover: p.action,
      colorLinkActive: p.action,
      colorSuccess: p.in,
      colorWarning: p.edge,
      colorError: p.out,
      colorText: p.ink,
      colorTextSecondary: p.dim,
      colorTextTertiary: p.dim,
      colorTextDescription: p.dim,
      colorTextPlaceholder: p.dim,
      colorBgBase: p.panel,
      colorBgContainer: p.panel,
      colorBgElevated: p.panel,
      colorBgLayout: p.paper,
      colorBorder: p.line,
      colorBorderSecondary: p.line,
      colorTextLightSolid: p.actionInk,
      fontFamily: WORD_FONT,
      fontFamilyCode: VALUE_FONT,
      fontSize: BODY_SIZE,
      borderRadius: 4,
      motionDurationMid: '0.12s',
      motionDurationSlow: '0.16s',
    },
    components: {
      Table: {
        cellPaddingBlockSM: ROW_PADDING,
        cellPaddingInlineSM: 8,
        headerBg: p.panel,
        headerColor: p.dim,
        headerSplitColor: 'transparent',
        rowHoverBg: p.select,
        rowSelectedBg: p.select,
        rowSelectedHoverBg: p.select,
      },
      Segmented: { itemSelectedBg: p.panel, trackBg: p.sunk },
      Button: { primaryShadow: 'none', defaultShadow: 'none' },
    },
  };
}
