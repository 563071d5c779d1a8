import { ink } from '@/ui/theme/tokens';

/** One grid for the heads and all rows; on a phone, name and figures under each other. */
const grid = {
  display: 'grid',
  alignItems: 'center',
  columnGap: 2,
  gridTemplateColumns: {
    xs: '32px minmax(0, 1fr) 40px',
    md: '32px 150px minmax(180px, 1.2fr) minmax(180px, 1fr) 150px 136px 36px',
  },
} as const;

export const headStyle = { ...grid, display: { xs: 'none', md: 'grid' }, pt: 1 } as const;

export const rowStyle = {
  ...grid,
  position: 'relative',
  '&[data-placed]': { position: 'absolute', top: 0, left: 0, right: 0 },
  py: 1,
  borderBottom: `1px solid ${ink.line}`,
  '&:hover, &[data-chosen=true]': { background: ink.raised },
} as const;

/** A row at a distance from the first, pixels; after the one before where it is null. */
export const placed = (top: number | null) =>
  top === null ? {} : { 'data-placed': true, style: { transform: `translateY(${top}px)` } };

const bare = { border: 0, p: 0 } as const;

export const cellStyle = {
  box: { ...bare, gridRow: { xs: '1 / span 4', md: 'auto' } },
  picture: { ...bare, display: { xs: 'none', md: 'block' } },
  name: bare,
  arrives: { ...bare, minWidth: 0, gridColumn: { xs: 2, md: 'auto' } },
  findings: { ...bare, gridColumn: { xs: 2, md: 'auto' } },
  changed: { ...bare, display: { xs: 'none', md: 'block' } },
  menu: { ...bare, gridColumn: { xs: 3, md: 'auto' }, gridRow: { xs: 1, md: 'auto' } },
} as const;
