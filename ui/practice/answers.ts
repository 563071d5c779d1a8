import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { PracticeAnswer } from '@/core/practice';
import { call } from '@/ui/parts/api';
import { tellFault } from '@/ui/parts/messages';
import type { StoredPractice } from '@/wire/practice';

export const practiceApi = {
  all: () => call<StoredPractice>('GET', '/practice'),
  add: (answers: readonly PracticeAnswer[]) => call<StoredPractice>('POST', '/practice', { answers }),
  remove: () => call<StoredPractice>('DELETE', '/practice'),
  restore: () => call<StoredPractice>('POST', '/practice/restore'),
};

/** What was answered and has not reached the server yet. */
const UNSENT = 'fenvo.practice.unsent';

function unsent(): PracticeAnswer[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(UNSENT) ?? '[]');
    return Array.isArray(kept) ? (kept as PracticeAnswer[]) : [];
  } catch {
    return [];
  }
}

function keepUnsent(answers: readonly PracticeAnswer[]): void {
  try {
    localStorage.setItem(UNSENT, JSON.stringify(answers));
  } catch {
    // A browser that keeps nothing: the answer is sent all the same.
  }
}

/** Sends what is kept; it is forgotten here only once the server has it. */
async function send(): Promise<StoredPractice | null> {
  const waiting = unsent();
  if (waiting.length === 0) return null;
  const stored = await practiceApi.add(waiting);
  const sent = new Set(waiting.map((a) => a.id));
  keepUnsent(unsent().filter((a) => !sent.has(a.id)));
  return stored;
}

const KEY = ['practice'];

/** All answers, and a way to add one: kept here at once, sent as soon as the server can be reached. */
export function useAnswers() {
  const queries = useQueryClient();
  const { data } = useQuery({
    queryKey: KEY,
    queryFn: async () => (await send().catch(() => null)) ?? practiceApi.all(),
  });
  const put = (stored: StoredPractice): void => {
    queries.setQueryData(KEY, stored);
  };
  useEffect(() => {
    const again = (): void =>
      void send()
        .then((stored) => {
          if (stored) queries.setQueryData(KEY, stored);
        })
        .catch(tellFault);
    window.addEventListener('online', again);
    return () => window.removeEventListener('online', again);
  }, [queries]);
  const add = (answer: PracticeAnswer): void => {
    keepUnsent([...unsent(), answer]);
    put({ removed: data?.removed ?? 0, answers: [...(data?.answers ?? []), answer] });
    send()
      .then((stored) => stored && put(stored))
      .catch(tellFault);
  };
  return { stored: data ?? null, add, put };
}
