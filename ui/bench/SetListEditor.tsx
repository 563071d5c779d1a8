import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { api } from '@/ui/parts/api';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { CommitField } from '@/ui/parts/CommitField';
import { EditableName } from '@/ui/parts/EditableName';
import { tellFault } from '@/ui/parts/messages';
import { PatchPicker, useLatestPatch } from '@/ui/parts/PatchPicker';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import type { SetItemRequest } from '@/wire/requests';
import type { StoredSetList } from '@/wire/setLists';
import { setApi } from './setApi';

interface Props {
  readonly list: StoredSetList;
  readonly onSaved: () => Promise<void>;
}

/** The patches of an evening, in their order; each change is kept at once. */
export function SetListEditor({ list, onSaved }: Props) {
  const first = useLatestPatch();
  const { racks } = useChosenRack();
  const { items } = list;
  const save = (change: Partial<Pick<StoredSetList, 'name' | 'rack' | 'items'>>): void => {
    const { name, rack, revision: baseRevision } = list;
    void setApi
      .save(list.id, { name, rack, items, baseRevision, ...change })
      .then(onSaved)
      .catch(tellFault);
  };
  const put = (index: number, change: Partial<SetItemRequest>): void =>
    save({ items: items.map((item, i) => (i === index ? { ...item, ...change } : item)) });
  const move = (from: number, by: number): void => {
    const next = [...items];
    const [item] = next.splice(from, 1);
    if (item) next.splice(from + by, 0, item);
    save({ items: next });
  };
  return (
    <Box sx={{ pt: 1, display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1 }}>
        <EditableName
          label="Name of the set list"
          value={list.name}
          longest={200}
          size={16}
          onRename={(name) => save({ name })}
        />
        <SelectField
          label="Rack of the set list"
          value={racks.some((r) => r.id === list.rack) ? list.rack : ''}
          options={[['', 'No rack'] as const, ...racks.map((r) => [r.id, r.name] as const)]}
          onChange={(rack) => save({ rack })}
          sx={{ width: 160 }}
        />
      </Box>
      {items.map((item, i) => (
        <Item
          key={`${i} ${item.patch} ${item.variant}`}
          item={item}
          onPut={(change) => put(i, change)}
          onUp={i === 0 ? null : () => move(i, -1)}
          onDown={i === items.length - 1 ? null : () => move(i, 1)}
          onRemove={() => save({ items: items.filter((_, k) => k !== i) })}
        />
      ))}
      <Box>
        <Button
          disabled={first === ''}
          onClick={() => save({ items: [...items, { patch: first, variant: '', notes: '', minutes: 5 }] })}
        >
          Add patch
        </Button>
      </Box>
    </Box>
  );
}

interface ItemProps {
  readonly item: SetItemRequest;
  readonly onPut: (change: Partial<SetItemRequest>) => void;
  readonly onUp: (() => void) | null;
  readonly onDown: (() => void) | null;
  readonly onRemove: () => void;
}

function Item({ item, onPut, onUp, onDown, onRemove }: ItemProps) {
  const variants = useQuery({
    queryKey: ['variants of', item.patch],
    queryFn: () => api.get(item.patch).then(({ patch }) => variantNames(patch)),
    enabled: item.patch !== '',
  });
  const names = [...new Set([...(variants.data ?? []), ...(item.variant ? [item.variant] : [])])];
  const minutes = (text: string): string | null => {
    const value = Number(text.replace(',', '.'));
    if (!(value >= 0 && value <= 1000)) return 'Type minutes, 0 to 1000.';
    onPut({ minutes: value });
    return null;
  };
  return (
    <Box
      data-set-item={item.patch}
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'flex-start',
        gap: 1,
        borderTop: `1px solid ${ink.line}`,
        pt: 1,
      }}
    >
      <PatchPicker
        label="Patch"
        value={item.patch}
        onChange={(patch) => onPut({ patch, variant: '' })}
        width={{ xs: '100%', sm: 230 }}
      />
      <SelectField
        label="Variant"
        value={item.variant}
        options={[['', 'As it is'] as const, ...names.map((n) => [n, n] as const)]}
        onChange={(variant) => onPut({ variant })}
        sx={{ width: 150 }}
      />
      <CommitField label="Minutes" value={String(item.minutes)} width={64} onPut={minutes} />
      <CommitField
        label="Notes"
        value={item.notes}
        placeholder="Notes"
        width={220}
        figures={false}
        onPut={(notes) => (onPut({ notes: notes.slice(0, 2000) }), null)}
      />
      <Button disabled={!onUp} onClick={() => onUp?.()}>
        Up
      </Button>
      <Button disabled={!onDown} onClick={() => onDown?.()}>
        Down
      </Button>
      <Button onClick={onRemove}>Remove</Button>
    </Box>
  );
}

/** The names of a stored patch’s variants. */
function variantNames(patch: object): string[] {
  const { variants } = patch as { readonly variants?: readonly { readonly name?: unknown }[] };
  return (variants ?? []).flatMap((v) => (typeof v.name === 'string' ? [v.name] : []));
}
