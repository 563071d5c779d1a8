import { route } from '@/server/api';
import { dataFolder } from '@/server/database';
import { Upload } from '@/server/upload';
import type { Restored } from '@/wire/library';

export const POST = route<Restored>(() => new Upload(dataFolder()).restore());
