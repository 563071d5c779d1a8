import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { buildGraph, placeName, readingUnit, readMeter } from '@/core';
import type { PlaceToRead, ReadQuantity } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { TextInput } from '@/ui/parts/TextInput';
import { QUANTITY_NAMES } from './quantityNames';
import { useMeter } from './useMeter';
import { usePlaces } from './usePlaces';
import type { OpenSession } from './useSession';

/** A reading of any socket, typed; at a simulated rack, read. */
export function AddReading({ open }: { readonly open: OpenSession }) {
  const places = usePlaces(open.at);
  const meter = useMeter(open);
  const [chosen, setChosen] = useState('');
  const [wanted, setWanted] = useState<ReadQuantity | ''>('');
  const place = places?.find((p) => p.at === chosen) ?? places?.[0];
  const quantity = place?.quantities.find((q) => q === wanted) ?? place?.quantities[0];
  if (!places || !place || !quantity) return <Box sx={{ minHeight: 44 }}>Loading…</Box>;
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'flex-start', gap: 1, pb: 1.5 }}>
      <SelectField
        label="Read at"
        value={place.at}
        options={places.map((p) => [p.at, placeName(open.patch.modules, p.at)] as const)}
        onChange={setChosen}
        sx={{ width: { xs: '100%', sm: 220 } }}
      />
      <SelectField
        label="Quantity"
        value={quantity}
        options={place.quantities.map((q) => [q, QUANTITY_NAMES[q]] as const)}
        onChange={setWanted}
        sx={{ width: 130 }}
      />
      <TypedReading key={`${place.at} ${quantity}`} at={place.at} quantity={quantity} open={open} />
      {meter && (
        <>
          <Button color="primary" disabled={meter.busy} onClick={() => meter.read([{ at: place.at, quantity }])}>
            Read
          </Button>
          <Button disabled={meter.busy} onClick={() => meter.read(sheetReadings(open, places))}>
            Read all outputs
          </Button>
        </>
      )}
    </Box>
  );
}

/** Every quantity of every output that something is plugged into, or that ends there. */
const sheetReadings = ({ patch }: OpenSession, places: readonly PlaceToRead[]) => {
  const outputs = new Set(buildGraph(patch).wiring.cables.map((c) => c.from));
  return places
    .filter((p) => outputs.has(p.at))
    .flatMap((p) => p.quantities.map((quantity) => ({ at: p.at, quantity })));
};

function TypedReading({
  at,
  quantity,
  open,
}: {
  readonly at: string;
  readonly quantity: ReadQuantity;
  readonly open: OpenSession;
}) {
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const unit = readingUnit(quantity);
  const put = (): void => {
    if (text.trim() === '') return;
    const value = readMeter(text, quantity, unit);
    if (value === null) return setFault(`Enter a value in ${unit}, for example 4.2.`);
    setText('');
    setFault(null);
    void open.add([{ at, quantity, value }]);
  };
  return (
    <>
      <Box sx={{ width: 130 }}>
        <TextInput
          label="Reading"
          placeholder={`Reading, ${unit}`}
          figures
          fullWidth
          longest={40}
          value={text}
          fault={fault}
          onChange={setText}
          onKeyDown={(e) => e.key === 'Enter' && put()}
        />
      </Box>
      <Button onClick={put}>Add</Button>
    </>
  );
}
