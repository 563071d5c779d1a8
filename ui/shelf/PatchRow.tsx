'use client';
import MoreVertIcon from '@mui/icons-material/MoreVert';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import dayjs from 'dayjs';
import relativeTime from 'dayjs/plugin/relativeTime';
import { useState } from 'react';
import { showRange } from '@/core';
import { downloadBundle, downloadPatch } from '@/ui/parts/files';
import { worstText } from '@/ui/parts/counted';
import { FINDINGS } from '@/ui/parts/places';
import { SafeLink } from '@/ui/parts/SafeLink';
import { api } from '@/ui/parts/api';
import type { Document, ListedPatch } from '@/wire/patches';
import { fonts, ink } from '@/ui/theme/tokens';
import { RenameDialog } from './RenameDialog';
import { StripPicture } from './StripPicture';

dayjs.extend(relativeTime);

interface Props {
  readonly patch: ListedPatch;
  readonly onChanged: () => Promise<void>;
  readonly onFault: (error: unknown) => void;
  readonly onRemove: () => void;
}

/** The worst that is said of a patch; it leads to its place. */
function Findings({ id, summary, fault }: ListedPatch) {
  const said = summary && worstText(summary.findings);
  if (fault) {
    return (
      <Box component="span" title={fault} sx={{ color: ink.error }}>
        {fault.length > 24 ? 'no picture' : fault}
      </Box>
    );
  }
  if (!said) return <Box sx={{ color: summary ? ink.good : ink.softInk }}>{summary ? 'sound' : 'looking…'}</Box>;
  return (
    <Box
      component={SafeLink}
      href={`/patches/${id}#${FINDINGS}`}
      title="Go to the place of the first"
      sx={{ color: said.colour, position: 'relative', zIndex: 1, py: 0.5 }}
    >
      {said.text}
    </Box>
  );
}

export function PatchRow({ patch, onChanged, onFault, onRemove }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [renaming, setRenaming] = useState(false);
  const close = (): void => setAnchor(null);
  const duplicate = async (): Promise<void> => {
    const { patch: document, tags, revision } = await api.get(patch.id);
    await api.keepVersion(patch.id, revision, 'started');
    await api.create({ ...document, name: `${patch.name} copy`.slice(0, 200) }, tags);
    await onChanged();
  };
  const exportAs = (download: (name: string, document: Document) => void | Promise<void>): void =>
    void api
      .get(patch.id)
      .then((p) => download(patch.name, p.patch))
      .catch(onFault);
  const rename = async (name: string): Promise<void> => {
    const { patch: document, revision } = await api.get(patch.id);
    await api.save(patch.id, revision, { ...document, name });
    await onChanged();
  };
  return (
    <Box
      component="li"
      data-patch={patch.id}
      sx={{
        position: 'relative',
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 2,
        py: 1.25,
        borderBottom: `1px solid ${ink.line}`,
        '&:hover': { background: ink.raised },
      }}
    >
      <StripPicture strip={patch.summary?.strip ?? []} />
      <Box sx={{ flex: 1, minWidth: 200 }}>
        <Box
          component={SafeLink}
          href={`/patches/${patch.id}`}
          sx={{
            fontWeight: 700,
            fontSize: 15,
            color: ink.ink,
            textDecoration: 'none',
            '&::after': { content: '""', position: 'absolute', inset: 0 },
          }}
        >
          {patch.name}
        </Box>
        <Box sx={{ fontSize: 13, color: ink.softInk }}>
          {(patch.summary?.ends ?? []).slice(0, 3).map((e) => (
            <Box key={e.label} sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
              <span>{e.label}</span>
              <Box component="span" sx={{ fontFamily: fonts.numbers }}>
                {showRange(e.low, e.high, e.unit)}
              </Box>
            </Box>
          ))}
        </Box>
      </Box>
      <Box sx={{ fontSize: 13, color: ink.softInk, width: 150 }}>{patch.tags.join(', ')}</Box>
      <Box sx={{ fontSize: 13, width: 90 }}>
        <Findings {...patch} />
      </Box>
      <Box
        sx={{ fontSize: 13, color: ink.softInk, width: 110 }}
        title={dayjs(patch.updatedAt).format('YYYY-MM-DD HH:mm')}
      >
        {dayjs(patch.updatedAt).fromNow()}
      </Box>
      <IconButton
        aria-label={`More for ${patch.name}`}
        aria-haspopup="menu"
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ zIndex: 1 }}
      >
        <MoreVertIcon fontSize="small" />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem dense onClick={() => (close(), setRenaming(true))}>
          Rename
        </MenuItem>
        <MenuItem dense onClick={() => (close(), void duplicate().catch(onFault))}>
          Duplicate
        </MenuItem>
        <MenuItem dense onClick={() => (close(), exportAs(downloadPatch))}>
          Export
        </MenuItem>
        <MenuItem dense onClick={() => (close(), exportAs(downloadBundle))}>
          Export with its recordings
        </MenuItem>
        <MenuItem dense onClick={() => (close(), onRemove())}>
          Delete
        </MenuItem>
      </Menu>
      {renaming && (
        <RenameDialog
          name={patch.name}
          onClose={() => setRenaming(false)}
          onRename={(name) => (setRenaming(false), void rename(name).catch(onFault))}
        />
      )}
    </Box>
  );
}
