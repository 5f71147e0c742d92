import type { ThemeConfig } from 'antd'

/** The bench: paper, ink, green for doing, brass for noticing, brick for trouble. Bead colours are the only bright things. */
export const ink = '#22302b'
export const quiet = '#56635c'
export const paper = '#f4efe4'
export const sheet = '#fbf8f1'
export const line = '#d9d1be'
export const green = '#2a5a49'
export const brass = '#8a6417'
export const brick = '#9a3f2b'

export const theme: ThemeConfig = {
  token: {
    colorPrimary: green,
    colorInfo: green,
    colorSuccess: green,
    colorWarning: brass,
    colorError: brick,
    colorTextBase: ink,
    colorBgBase: sheet,
    colorBgLayout: paper,
    colorBgContainer: '#fffdf8',
    colorBgElevated: sheet,
    colorBorder: '#a59d88',
    colorBorderSecondary: line,
    colorTextDescription: quiet,
    colorTextPlaceholder: '#6d776f',
    colorLink: green,
    fontFamily: "'Source Sans 3 Variable', sans-serif",
    fontSize: 15,
    borderRadius: 5,
    controlHeight: 36,
    // What is chosen in a list is read on it.
    controlItemBgActive: '#e0eae1',
    controlItemBgActiveHover: '#d3e1d6',
    wireframe: false,
    boxShadow: '0 2px 10px rgb(34 48 43 / 14%)',
    boxShadowSecondary: '0 4px 18px rgb(34 48 43 / 18%)',
  },
  components: {
    Table: {
      headerBg: 'transparent',
      headerColor: quiet,
      headerSplitColor: 'transparent',
      rowHoverBg: '#f1ead9',
      cellPaddingBlock: 9,
      borderColor: line,
    },
    Segmented: { trackBg: '#e8e0cd', itemSelectedBg: sheet, itemColor: '#46524b' },
    Button: { fontWeight: 600, primaryShadow: 'none', defaultShadow: 'none' },
    Modal: { titleFontSize: 20 },
  },
}
