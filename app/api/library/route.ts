import { route } from '@/server/api';
import { dataFolder } from '@/server/database';
import { libraryIn } from '@/server/libraryFile';
import type { LibraryState } from '@/wire/library';

export const GET = route<LibraryState>(async ({ library }) => ({
  ...(await libraryIn(library.folder)),
  folder: dataFolder(),
  damage: library.damage,
}));
