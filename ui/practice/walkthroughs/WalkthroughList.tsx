import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Skeleton from '@mui/material/Skeleton';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { builtWalkthroughs, WALKTHROUGH_GROUPS } from '@/core/practice/walkthroughs';
import type { BuiltWalkthrough } from '@/core/practice/walkthroughs';
import { ActionMenu } from '@/ui/parts/ActionMenu';
import { counted } from '@/ui/parts/counted';
import { FileButton } from '@/ui/parts/FileButton';
import { MoreIcon } from '@/ui/parts/icons';
import { later } from '@/ui/parts/later';
import { tell, tellFault } from '@/ui/parts/messages';
import { SafeLink } from '@/ui/parts/SafeLink';
import { ink } from '@/ui/theme/tokens';
import type { StoredWalkthrough } from '@/wire/practice';
import { downloadWalkthrough, walkthroughApi } from '@/ui/parts/walkthroughApi';

const EditWalkthrough = later(() => import('./EditWalkthrough').then((m) => m.EditWalkthrough));

const KEY = ['walkthroughs'];
const lengthOf = (document: { readonly [key: string]: unknown }): number =>
  Array.isArray(document.steps) ? document.steps.length : 0;
const textOf = (x: unknown): string => (typeof x === 'string' ? x : '');
/** The basics are told apart from what recipes do. */
const TITLES: Readonly<Record<(typeof WALKTHROUGH_GROUPS)[number], string>> = {
  Basics: 'The craft, one thing at a time',
  Recipes: 'Recipes, knob by knob',
};

/** All walkthroughs: one’s own, then those that ship with Fenvo. */
export function WalkthroughList() {
  return (
    <Box sx={{ pt: 2 }}>
      <Own />
      <Box sx={columnsStyle}>
        {WALKTHROUGH_GROUPS.map((group) => (
          <Box component="section" key={group} aria-label={TITLES[group]} sx={{ minWidth: 0 }}>
            <Box component="h2" sx={{ fontSize: 16, m: 0, mb: 1 }}>
              {TITLES[group]}
            </Box>
            {builtWalkthroughs
              .filter((b) => b.group === group)
              .map((b) => (
                <Built key={b.id} built={b} />
              ))}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

const columnsStyle = {
  display: 'grid',
  gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1fr 1fr' },
  columnGap: 4,
  rowGap: 3,
};

function Built({ built: { id, title, about, document } }: { readonly built: BuiltWalkthrough }) {
  return (
    <Box sx={{ py: 1, borderTop: `1px solid ${ink.line}` }} data-walkthrough={id}>
      <Box sx={{ display: 'flex', gap: 2 }}>
        <Box component={SafeLink} href={`/practice/walkthroughs/${id}`} sx={{ color: ink.wanted, fontWeight: 700 }}>
          {title}
        </Box>
        <Box sx={{ ml: 'auto', color: ink.softInk, whiteSpace: 'nowrap' }}>{counted(lengthOf(document), 'step')}</Box>
      </Box>
      <Box sx={{ color: ink.softInk, fontSize: 14 }}>{about}</Box>
    </Box>
  );
}

/** Walkthroughs that somebody wrote: recorded in the editor, or imported. */
function Own() {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: KEY, queryFn: () => walkthroughApi.list() });
  const { data: removed } = useQuery({ queryKey: [...KEY, 'removed'], queryFn: () => walkthroughApi.list(true) });
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: KEY });
  const bringIn = (file: File): Promise<void> =>
    file
      .text()
      .then((text) => walkthroughApi.add(JSON.parse(text) as StoredWalkthrough['walkthrough']))
      .then(refresh)
      .catch((error: unknown) => tellFault(`${file.name}: ${error instanceof Error ? error.message : String(error)}`));
  const restore = (): void =>
    void Promise.all((removed ?? []).map((w) => walkthroughApi.restore(w.id)))
      .then(refresh)
      .catch(tellFault);
  return (
    <Box component="section" aria-label="Your walkthroughs" sx={{ mb: 3 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1, mb: 1 }}>
        <Box component="h2" sx={{ fontSize: 16, m: 0 }}>
          Your own
        </Box>
        <Box sx={{ flex: 1 }} />
        {(removed?.length ?? 0) > 0 && (
          <Button onClick={restore}>{`Restore ${counted(removed?.length ?? 0, 'walkthrough')}`}</Button>
        )}
        <FileButton says="A walkthrough" accept="application/json" onFile={bringIn} />
      </Box>
      {!data && <Skeleton variant="rectangular" sx={{ height: 48 }} />}
      {data?.length === 0 && (
        <Box sx={{ color: ink.softInk, maxWidth: 760 }}>
          None yet. Open a patch, choose Record a walkthrough under Help, and do what you want to show: every knob and
          cable becomes a step.
        </Box>
      )}
      {data && data.length > 0 && (
        <Table size="small" aria-label="Your walkthroughs">
          <TableBody>
            {data.map((w) => (
              <OwnRow key={w.id} stored={w} onChanged={refresh} />
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}

function OwnRow({
  stored,
  onChanged,
}: {
  readonly stored: StoredWalkthrough;
  readonly onChanged: () => Promise<void>;
}) {
  const { id, walkthrough } = stored;
  const button = useRef<HTMLButtonElement>(null);
  const [open, setOpen] = useState<'menu' | 'edit' | null>(() =>
    new URLSearchParams(window.location.search).get('edit') === id ? 'edit' : null,
  );
  const title = textOf(walkthrough.title);
  const remove = (): void =>
    void walkthroughApi
      .remove(id)
      .then(onChanged)
      .then(() =>
        tell(`“${title}” was deleted.`, {
          label: 'Undo',
          run: () => void walkthroughApi.restore(id).then(onChanged).catch(tellFault),
        }),
      )
      .catch(tellFault);
  return (
    <TableRow data-own={id}>
      <TableCell>
        <Box component={SafeLink} href={`/practice/walkthroughs/${id}`} sx={{ color: ink.wanted, fontWeight: 700 }}>
          {title}
        </Box>
        <Box sx={{ color: ink.softInk }}>{textOf(walkthrough.about)}</Box>
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap', color: ink.softInk }}>{counted(lengthOf(walkthrough), 'step')}</TableCell>
      <TableCell align="right" sx={{ width: 48 }}>
        <IconButton ref={button} aria-label={`More for ${title}`} aria-haspopup="menu" onClick={() => setOpen('menu')}>
          <MoreIcon fontSize="small" />
        </IconButton>
        <ActionMenu
          anchor={() => button.current}
          open={open === 'menu'}
          onClose={() => setOpen(null)}
          entries={[
            ['Edit text', () => setOpen('edit')],
            ['Export', () => downloadWalkthrough(walkthrough)],
            ['Delete', remove],
          ]}
        />
        {open === 'edit' && (
          <EditWalkthrough
            stored={stored}
            onClose={() => setOpen(null)}
            onSaved={() => {
              setOpen(null);
              void onChanged();
            }}
          />
        )}
      </TableCell>
    </TableRow>
  );
}
