/** A document just inside every limit: 400 modules, 192 kHz, nearly 5 MB. */
export function heavyDocument(): object {
  const points = Array.from({ length: 9000 }, (_, i) => ({
    t: i / 100,
    volts: Number((5 * Math.sin(i / 40)).toFixed(4)),
  }));
  const modules = Array.from({ length: 400 }, (_, i) =>
    i < 17
      ? { id: `g${i}`, kind: 'gesture', params: { points } }
      : { id: `m${i}`, kind: i % 3 === 0 ? 'vca' : i % 3 === 1 ? 'offset' : 'slew' },
  );
  const cables = modules.slice(18).map((m, i) => ({ from: `${modules[i + 17]?.id}.out`, to: `${m.id}.in` }));
  return {
    format: 'fenvo.patch',
    version: 1,
    name: 'As heavy as may be',
    settings: { sampleRate: 192_000, duration: 8 },
    modules,
    cables,
  };
}
