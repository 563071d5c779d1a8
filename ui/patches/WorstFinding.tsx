import Box from '@mui/material/Box';
import { worstText } from '@/ui/parts/counted';
import { FINDINGS } from '@/ui/parts/places';
import { SafeLink } from '@/ui/parts/SafeLink';
import { ink } from '@/ui/theme/tokens';
import type { ListedPatch } from '@/wire/patches';

/** The worst that is said of a patch; it leads to its place. */
export function WorstFinding({ id, summary, fault, stop }: ListedPatch & { readonly stop: number }) {
  const said = summary && worstText(summary.findings);
  if (fault) {
    return (
      <Box component="span" title={fault} sx={{ color: ink.error }}>
        {fault.length > 24 ? 'No preview' : fault}
      </Box>
    );
  }
  if (!said) return <Box sx={{ color: summary ? ink.good : ink.softInk }}>{summary ? 'No issues' : 'Checking…'}</Box>;
  return (
    <Box
      component={SafeLink}
      href={`/patches/${id}#${FINDINGS}`}
      title="Show the first issue"
      tabIndex={stop}
      sx={{ color: said.colour, position: 'relative', zIndex: 1, py: 0.5 }}
    >
      {said.text}
    </Box>
  );
}
