import { route } from '@/server/api';
import type { StoredPractice } from '@/wire/practice';

export const POST = route<StoredPractice>(({ practice }) => practice.setRemoved(false));
