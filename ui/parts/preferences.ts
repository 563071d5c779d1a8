'use client';
import { useColorScheme } from '@mui/material/styles';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { USUAL } from '@/wire/usual';
import type { Preferences, StoredPreferences } from '@/wire/preferences';
import { call } from './api';
import { keepSettings, settings } from './settings';

/** The preferences that were last the same here and in the library. */
const KEY = 'fenvo.preferences';
/** What is chosen one after the other is sent as one, milliseconds. */
const REST = 400;

const NAMES = Object.keys(USUAL) as (keyof Preferences)[];
const textOf = (of: Preferences): string => JSON.stringify(Object.fromEntries(NAMES.map((name) => [name, of[name]])));
const own = (): string => textOf(settings.getState());

/** Works on the browser's store, which may be blocked: then the library's preferences hold. */
function remembered(text?: string): string | null {
  try {
    if (text !== undefined) localStorage.setItem(KEY, text);
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

async function send(): Promise<void> {
  const text = own();
  await call('PUT', '/preferences', JSON.parse(text));
  remembered(text);
}

/** What was changed here since the last time goes to the library; else what the library has holds here. */
async function meet(): Promise<void> {
  const { preferences } = await call<StoredPreferences>('GET', '/preferences');
  const usual = textOf(USUAL);
  if (own() !== (remembered() ?? usual)) return send();
  if (!preferences) return;
  remembered(textOf(preferences));
  settings.setState(preferences);
  keepSettings();
}

/** Keeps the preferences of this browser and of the library the same, and the theme as it is preferred. */
export function PreferencesKeeper() {
  const theme = useStore(settings, (s) => s.theme);
  const { setMode } = useColorScheme();
  useEffect(() => setMode(theme), [theme, setMode]);
  useEffect(() => {
    // Where no server answers, this browser's own hold, and are sent the next time.
    void meet().catch(() => undefined);
    let soon: ReturnType<typeof setTimeout> | undefined;
    const stop = settings.subscribe(() => {
      clearTimeout(soon);
      if (own() !== (remembered() ?? textOf(USUAL))) soon = setTimeout(() => void send().catch(() => undefined), REST);
    });
    return () => {
      clearTimeout(soon);
      stop();
    };
  }, []);
  return null;
}
