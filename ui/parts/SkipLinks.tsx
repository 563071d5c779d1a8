import Box from '@mui/material/Box';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly links: readonly (readonly [anchor: `#${string}`, says: string])[];
}

/** The first stops of the Tab key: past what stands above, to what one came for. */
export function SkipLinks({ links }: Props) {
  return links.map(([anchor, says]) => (
    <Box
      key={anchor}
      component="a"
      href={anchor}
      data-no-print
      onClick={(e) => {
        const target = document.querySelector<HTMLElement>(anchor);
        if (!target) return;
        // The address stays as it is: a hash may mean something of its own.
        e.preventDefault();
        target.focus();
        target.scrollIntoView({ block: 'nearest' });
      }}
      sx={{
        position: 'fixed',
        top: -48,
        left: 8,
        zIndex: 20,
        p: 1,
        color: ink.ink,
        background: ink.raised,
        border: `1px solid ${ink.wanted}`,
        '&:focus': { top: 8 },
      }}
    >
      {says}
    </Box>
  ));
}
