import { route, whileDamaged } from '@/server/api';
import { dataFolder } from '@/server/database';
import { Upload } from '@/server/upload';
import type { Restored } from '@/wire/library';

export const POST = route<Restored>(
  ({ library }) => new Upload(dataFolder()).restore(library.damage !== null),
  200,
  whileDamaged,
);
