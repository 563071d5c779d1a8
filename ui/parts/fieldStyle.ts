import { ink } from '@/ui/theme/tokens';

/** The look of the small headings over parts of a screen. */
export const headingStyle = { fontSize: 12, fontWeight: 700, color: ink.softInk, m: 0 } as const;
