import { fonts, ink } from '@/ui/theme/tokens';

/** The look of a plain field. */
export const fieldStyle = {
  font: `13px ${fonts.numbers}`,
  color: ink.ink,
  background: ink.paper,
  border: `1px solid ${ink.line}`,
  borderRadius: '4px',
  padding: '2px 4px',
  maxWidth: 150,
} as const;

/** The look of the small headings over parts of a screen. */
export const headingStyle = { fontSize: 12, fontWeight: 700, color: ink.softInk, m: 0 } as const;
