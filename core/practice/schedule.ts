import { createEmptyCard, fsrs, Rating } from 'ts-fsrs';
import type { Card, Grade } from 'ts-fsrs';
import type { PracticeAnswer } from './record';
import { allSkills, skillNamed } from './skills';
import { LEVELS } from './types';
import type { Level, Skill } from './types';

/** A skill at one level, and when it is due again. */
export interface PracticeCard {
  readonly skill: string;
  readonly level: Level;
  readonly due: Date;
  /** After so many days nine of ten answers are still right. */
  readonly stabilityDays: number;
  readonly answers: number;
}

/** Over so many times one’s own median, or under that part of it, an answer was slow, or quick. */
const SLOW = 2;
const QUICK = 0.5;
/** So many quick ones running make it easy; a median is of so many answers at least. */
const RUNNING = 3;
/** A level opens once the one below is stable for so many days. */
const OPENS_DAYS = 7;

const scheduler = fsrs({ enable_fuzz: false });
export const cardKey = ({ skill, level }: Pick<PracticeAnswer, 'skill' | 'level'>): string => `${skill} ${level}`;

function median(list: readonly number[]): number | null {
  if (list.length < RUNNING) return null;
  const sorted = list.toSorted((a, b) => a - b);
  const at = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? (sorted[at] as number) : ((sorted[at - 1] as number) + (sorted[at] as number)) / 2;
}

/**
 * How an answer is rated for its schedule.
 *
 * @param before earlier answers to the same skill and level, in their order.
 */
export function ratingOf(
  { score, seconds }: Pick<PracticeAnswer, 'score' | 'seconds'>,
  before: readonly PracticeAnswer[],
): Grade {
  if (score <= 0) return Rating.Again;
  const usual = median(before.filter((a) => a.score >= 1).map((a) => a.seconds));
  if (score < 1 || (usual !== null && seconds > SLOW * usual)) return Rating.Hard;
  const quick = (a: Pick<PracticeAnswer, 'score' | 'seconds'>): boolean =>
    usual !== null && a.score >= 1 && a.seconds < QUICK * usual;
  const running = [...before.slice(1 - RUNNING), { score, seconds }];
  return running.length === RUNNING && running.every(quick) ? Rating.Easy : Rating.Good;
}

/** Where every skill and level stands after all answers, by its key. */
export function cardsOf(answers: readonly PracticeAnswer[]): ReadonlyMap<string, PracticeCard> {
  const found = new Map<string, { card: Card; before: PracticeAnswer[] }>();
  const ordered = answers.toSorted((a, b) => a.at.localeCompare(b.at));
  for (const answer of ordered) {
    const key = cardKey(answer);
    const at = new Date(answer.at);
    const { card, before } = found.get(key) ?? { card: createEmptyCard(at), before: [] };
    const next = scheduler.next(card, at, ratingOf(answer, before)).card;
    found.set(key, { card: next, before: [...before, answer] });
  }
  return new Map(
    [...found].map(([key, { card, before }]) => {
      const { skill, level } = before[0] as PracticeAnswer;
      return [key, { skill, level, due: card.due, stabilityDays: card.stability, answers: before.length }];
    }),
  );
}

/**
 * The levels of a skill that can be asked: the first, each whose level below is stable, and each that was practised
 * before by choice.
 */
export function openLevels(skill: string, cards: ReadonlyMap<string, PracticeCard>): Level[] {
  return LEVELS.filter((level) => {
    const key = cardKey({ skill, level });
    if (level === 1 || cards.has(key)) return true;
    const below = cards.get(cardKey({ skill, level: (level - 1) as Level }));
    return below !== undefined && below.stabilityDays > OPENS_DAYS;
  });
}

/** The first seed of a skill’s level that nobody has answered, nor any before it. */
export const seedAfter = (answers: readonly PracticeAnswer[], skill: string, level: Level): number =>
  Math.max(0, ...answers.filter((a) => a.skill === skill && a.level === level).map((a) => a.seed)) + 1;

/** The mistakes that were made, the commonest first, with the skills in which they were. */
export function commonSlips(
  answers: readonly PracticeAnswer[],
): readonly { readonly text: string; readonly times: number; readonly skills: readonly string[] }[] {
  const found = new Map<string, PracticeAnswer[]>();
  for (const a of answers) if (a.slip !== undefined) found.set(a.slip, [...(found.get(a.slip) ?? []), a]);
  return [...found]
    .map(([text, made]) => ({ text, times: made.length, skills: [...new Set(made.map((a) => a.skill))] }))
    .toSorted((a, b) => b.times - a.times);
}

export interface SittingOptions {
  readonly now: Date;
  /** Sound is on: skills of the ear are asked too. */
  readonly sound: boolean;
  /** Only these, where one practises a choice of skills. */
  readonly only?: (skill: Skill) => boolean;
}

interface Candidate {
  readonly skill: Skill;
  readonly level: Level;
  /** Null of what was never asked. */
  readonly due: Date | null;
}

/** What comes next: of what is due the longest due, else something new, else what is due first; groups in turn. */
export function nextExercise(
  answers: readonly PracticeAnswer[],
  { now, sound, only = () => true }: SittingOptions,
): { readonly skill: string; readonly level: Level; readonly seed: number } | null {
  const cards = cardsOf(answers);
  const candidates = allSkills
    .filter((s) => (sound || !s.needsSound) && only(s))
    .flatMap((skill) =>
      openLevels(skill.name, cards).map((level): Candidate => ({
        skill,
        level,
        due: cards.get(cardKey({ skill: skill.name, level }))?.due ?? null,
      })),
    );
  const last = answers.toSorted((a, b) => a.at.localeCompare(b.at)).at(-1);
  const lastGroup = last && skillNamed(last.skill)?.group;
  const time = (c: Candidate): number => c.due?.getTime() ?? 0;
  const due = candidates.filter((c) => c.due !== null && c.due <= now).toSorted((a, b) => time(a) - time(b));
  const fresh = candidates.filter((c) => c.due === null);
  const coming = candidates.filter((c) => c.due !== null && c.due > now).toSorted((a, b) => time(a) - time(b));
  const list = [due, fresh, coming].find((l) => l.length > 0) ?? [];
  const next = list.find((c) => c.skill.group !== lastGroup) ?? list[0];
  if (!next) return null;
  const { skill, level } = next;
  return { skill: skill.name, level, seed: seedAfter(answers, skill.name, level) };
}
