'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { blankRack, printRack } from '@/core';
import type { Rack } from '@/core';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { later } from '@/ui/parts/later';
import { tell, tellFault } from '@/ui/parts/messages';
import { rackApi } from '@/ui/parts/rackApi';
import { duplicateModule, listed, removeModule } from './edits';
import { ModuleEditor } from './ModuleEditor';
import { ModuleTable } from './ModuleTable';
import { RackHead } from './RackHead';
import { RackRows } from './RackRows';
import { useRack } from './useRack';
import { useUses } from './useUses';

const CatalogueDialog = later(() => import('./CatalogueDialog').then((m) => m.CatalogueDialog));

/** What is done with whole racks. */
function useRacks(choose: (id: string) => void) {
  const queries = useQueryClient();
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['racks'] });
  const create = (rack: Rack): void =>
    void rackApi
      .create(printRack(rack))
      .then(async ({ id }) => {
        await refresh();
        choose(id);
      })
      .catch(tellFault);
  const remove = (id: string, name: string): void => {
    const back = (): void =>
      void rackApi
        .restore(id)
        .then(refresh)
        .then(() => choose(id))
        .catch(tellFault);
    void rackApi
      .remove(id)
      .then(refresh)
      .then(() => tell(`“${name}” was deleted.`, { label: 'Undo', run: back }))
      .catch(tellFault);
  };
  return { create, remove };
}

/** What one owns: racks, their rows, each module with its channels. */
export function RackScreen() {
  const { racks, id: kept, choose } = useChosenRack();
  const id = kept || (racks[0]?.id ?? '');
  const { create, remove } = useRacks(choose);
  const open = useRack(id);
  const { rack, edit } = open;
  const [words, setWords] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const [forPatch, setForPatch] = useState('');
  const uses = useUses(rack, forPatch);
  const shown = useMemo(() => (rack ? listed(rack, words, uses.byChannel) : []), [rack, words, uses.byChannel]);
  const duplicate = (module: string): void => {
    const made = rack && duplicateModule(rack, module);
    if (!made) return;
    edit(made.rack);
    setChosen(made.id);
  };
  return (
    <Box component="main" sx={{ maxWidth: 1480, mx: 'auto', px: 2, pb: 6 }}>
      <RackHead
        {...{ racks, id, choose, create, remove, open, words, forPatch }}
        onWords={setWords}
        onForPatch={setForPatch}
        onAdd={() => setAdding(true)}
      />
      {racks.length === 0 && <EmptyRacks onNew={() => create(blankRack)} />}
      {rack && (
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '1fr 400px' }, gap: 2, mt: 2 }}>
          <Box sx={{ minWidth: 0 }}>
            <RackRows rack={rack} chosen={chosen} uses={uses.byChannel} onChoose={setChosen} />
            {uses.short.length > 0 && (
              <Alert severity="warning" data-short sx={{ mb: 1.5 }}>
                {uses.short.map((s) => (
                  <Box key={s.module}>{`No channel for ${s.module}: ${s.why}. Alternatives: ${s.covers}.`}</Box>
                ))}
              </Alert>
            )}
            <ModuleTable modules={shown} chosen={chosen} onChoose={setChosen} />
            {rack.modules.length === 0 && (
              <Box sx={{ py: 3 }}>
                <p>This rack is empty. Add modules from the catalogue, or define your own.</p>
                <Button color="primary" onClick={() => setAdding(true)}>
                  Add module
                </Button>
              </Box>
            )}
            {rack.modules.length > 0 && shown.length === 0 && <p>No module fits these words.</p>}
          </Box>
          <ModuleEditor
            key={chosen ?? ''}
            rack={rack}
            id={chosen}
            uses={uses.byChannel}
            edit={edit}
            onDuplicate={duplicate}
            onRemove={(module) => (edit(removeModule(rack, module)), setChosen(null))}
          />
        </Box>
      )}
      {adding && rack && (
        <CatalogueDialog
          rack={rack}
          onClose={() => setAdding(false)}
          onAdded={(made) => (edit(made.rack), setChosen(made.id))}
        />
      )}
    </Box>
  );
}

function EmptyRacks({ onNew }: { readonly onNew: () => void }) {
  return (
    <Box sx={{ py: 6, maxWidth: 520 }}>
      <h2>No racks yet</h2>
      <p>
        List the modules you own. Fenvo then checks every patch against your rack, keeps knobs within what your modules
        can do, and plans with the channels you have free.
      </p>
      <Button color="primary" onClick={onNew}>
        New rack
      </Button>
    </Box>
  );
}
