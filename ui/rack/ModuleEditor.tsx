'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { LIMITS, RACK_LIMITS } from '@/core';
import type { Rack, RackModule } from '@/core';
import { EditableName } from '@/ui/parts/EditableName';
import { CopyIcon, DeleteIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import { ChannelEditor } from './ChannelEditor';
import { CommitField } from '@/ui/parts/CommitField';
import { addChannel, changeModule } from './edits';
import { rackFault } from './limits';

interface Props {
  readonly rack: Rack;
  readonly id: string | null;
  readonly uses: ReadonlyMap<string, readonly string[]>;
  readonly edit: (rack: Rack) => void;
  readonly onDuplicate: (id: string) => void;
  readonly onRemove: (id: string) => void;
}

const panelStyle = {
  minWidth: 0,
  borderLeft: { lg: `1px solid ${ink.line}` },
  pl: { lg: 2 },
  alignSelf: 'start',
  // On a phone what is changed stands before the list.
  order: { xs: -1, lg: 0 },
} as const;

/** The chosen module: its name and place, and each of its channels. */
export function ModuleEditor({ rack, id, uses, edit, onDuplicate, onRemove }: Props) {
  const m = rack.modules.find((x) => x.id === id);
  if (!m)
    return (
      <Box component="aside" aria-label="Module" sx={{ ...panelStyle, color: ink.softInk }}>
        Select a module to edit its channels.
      </Box>
    );
  return (
    <Box component="aside" aria-label="Module" data-editing={m.id} sx={panelStyle}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <EditableName
          label="Name of the module"
          value={m.name}
          longest={LIMITS.label}
          size={17}
          onRename={(name) => edit(changeModule(rack, m.id, (x) => ({ ...x, name })))}
        />
        <Box sx={{ flex: 1 }} />
        <IconButton aria-label={`Duplicate ${m.name}`} onClick={() => onDuplicate(m.id)}>
          <CopyIcon sx={{ fontSize: 18 }} />
        </IconButton>
        <IconButton aria-label={`Remove ${m.name}`} onClick={() => onRemove(m.id)}>
          <DeleteIcon sx={{ fontSize: 18 }} />
        </IconButton>
      </Box>
      <PlaceFields rack={rack} module={m} edit={edit} />
      {m.channels.map((c) => (
        <ChannelEditor
          key={c.id}
          rack={rack}
          module={m}
          channel={c}
          used={uses.get(`${m.id}/${c.id}`) ?? []}
          edit={edit}
        />
      ))}
      {m.channels.length < RACK_LIMITS.channels && (
        <Button onClick={() => edit(addChannel(rack, m.id))} sx={{ mt: 1 }}>
          Add channel
        </Button>
      )}
    </Box>
  );
}

interface PlaceProps {
  readonly rack: Rack;
  readonly module: RackModule;
  readonly edit: (rack: Rack) => void;
}

/** Row, place and width. */
function PlaceFields({ rack, module: m, edit }: PlaceProps) {
  const put = (key: 'row' | 'at' | 'hp', text: string): string | null => {
    const next = changeModule(rack, m.id, (x) => ({ ...x, [key]: Number(text) }));
    const fault = rackFault(next);
    if (fault === null) edit(next);
    return fault;
  };
  const field = (key: 'row' | 'at' | 'hp', label: string, value: number) => (
    <Box component="label" sx={{ fontSize: 13, color: ink.softInk }}>
      {label}
      <CommitField label={label} value={String(value)} width={72} onPut={(text) => put(key, text)} />
    </Box>
  );
  return (
    <Box sx={{ display: 'flex', gap: 1, my: 1 }}>
      {field('row', 'Row', m.row ?? 1)}
      {field('at', 'Position (HP)', m.at ?? 0)}
      {field('hp', 'Width (HP)', m.hp ?? 4)}
    </Box>
  );
}
