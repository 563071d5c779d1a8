import { route, whileDamaged } from '@/server/api';
import { goOnWithSalvaged } from '@/server/library';
import type { Restored } from '@/wire/library';

/** Goes on with what could be read of a damaged library. */
export const POST = route<Restored>(() => goOnWithSalvaged(), 200, whileDamaged);
