import { ink } from '@/ui/theme/tokens';

/** Where what accompanies the work lies: over the path’s lower left corner, on a phone over the foot of the page. */
export const floatingStyle = {
  position: 'fixed',
  left: { xs: 8, md: 252 },
  bottom: 12,
  width: { xs: 'calc(100% - 16px)', md: 420 },
  p: 1.75,
  background: ink.raised,
  border: `1px solid ${ink.wanted}`,
  borderRadius: 1,
  zIndex: 5,
} as const;
