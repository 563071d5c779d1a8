import type { Json } from './result';
import type { Channel, ChannelMode, Rack, RackModule } from './rackTypes';

const filled = (x: object): boolean => Object.keys(x).length > 0;

const printMode = ({ kind, fixed, ranges, choices }: ChannelMode): Record<string, Json> => ({
  kind,
  ...(filled(fixed) && { fixed: fixed as Json }),
  ...(filled(ranges) && { ranges: ranges as Json }),
  ...(filled(choices) && { choices: choices as Json }),
});

function printChannel({
  id,
  label,
  modes,
  normals,
  outputOhms,
  inputOhms,
  noiseMicrovolts,
  knobs,
  measured,
}: Channel): Json {
  return {
    id,
    ...(label !== undefined && { label }),
    ...(modes.length === 1 ? printMode(modes[0]) : { modes: modes.map(printMode) }),
    ...(normals.length > 0 && { normals: normals as unknown as Json }),
    ...(filled(outputOhms) && { outputOhms }),
    ...(filled(inputOhms) && { inputOhms }),
    ...(noiseMicrovolts !== undefined && { noiseMicrovolts }),
    ...(filled(knobs) && { knobs: knobs as unknown as Json }),
    ...(measured && { measured: measured as Json }),
  };
}

const printModule = ({ channels, ...m }: RackModule): Json => ({ ...m, channels: channels.map(printChannel) });

/** A rack as its document, without what says nothing. */
export function printRack({ format, version, name, notes, modules, extra }: Rack): Record<string, Json> {
  return { ...extra, format, version, name, ...(notes && { notes }), modules: modules.map(printModule) };
}
