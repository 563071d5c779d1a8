import { useState } from 'react';
import { readQuantity } from '@/core';
import { keepScale, keptScale } from './scales';

/** A field that begins with what was last typed for its kind of file. */
export function useKept(kind: string, otherwise: string): readonly [string, (text: string) => void] {
  const [typed, setTyped] = useState(() => keptScale(kind, otherwise));
  return [typed, (text) => (setTyped(text), keepScale(kind, text))];
}

export const numberOf = (text: string): number | null => readQuantity(text, '');
