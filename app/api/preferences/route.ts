import { route } from '@/server/api';
import { preferencesSchema } from '@/server/checks/schemas';
import type { Preferences, StoredPreferences } from '@/wire/preferences';

export const GET = route<StoredPreferences>(({ preferences }) => preferences.get());

export const PUT = route<StoredPreferences>(async ({ preferences, body }) =>
  preferences.put(await body<Preferences>(preferencesSchema)),
);

export const DELETE = route<StoredPreferences>(({ preferences }) => preferences.remove());
