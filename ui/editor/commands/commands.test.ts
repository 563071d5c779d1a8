import { readdirSync, readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { buildGraph, parsePatch, printPatch } from '@/core';
import type { Patch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { createDesk } from '@/ui/session/desk';
import type { DeskStore } from '@/ui/session/desk';
import { predictedAt } from '@/ui/session/predictedAt';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Command } from './commandTable';
import { pathCommands } from './pathCommands';
import { stageCommands } from './stageCommands';
import { planOf } from './tasks';
import type { Task } from './tasks';

const DEMO = 'demo/patches';

beforeEach(() => {
  // Where the focus goes is tried in the browser.
  vi.stubGlobal('requestAnimationFrame', () => 0);
});
afterEach(() => void vi.unstubAllGlobals());

const deskOf = (patch: Patch): DeskStore => createDesk({ id: 'p', patch, saved: patch, revision: 1, savedAt: '' });

/** What is predicted of the patch in an editor, as far as commands ask. */
function predictedOf(desk: DeskStore): Predicted {
  const { patch, trail } = desk.getState();
  return predictedAt(buildGraph(patch), trail.at(-1));
}

/** All commands as things stand, and what they began. */
function commandsOf(desk: DeskStore, predicted = predictedOf(desk)) {
  const begun: Task[] = [];
  const { trail } = desk.getState();
  const given = {
    desk,
    predicted,
    ends: predicted.ends,
    end: trail[0] ?? null,
    socket: trail.at(-1) ?? null,
    setScene: () => undefined,
    go: () => undefined,
    begin: (task: Task | null) => void (task && begun.push(task)),
  };
  const all = [...stageCommands(given), ...pathCommands(given)];
  const named = (id: string): Command => all.find((c) => c.id === id)!;
  return { all, named, begun, predicted, run: (id: string) => named(id).run() };
}

const demo = readdirSync(DEMO).filter((name) => name.endsWith('.json'));
function demoPatch(name: string): Patch {
  const read = parsePatch(JSON.parse(readFileSync(`${DEMO}/${name}`, 'utf8')));
  if (!read.ok) throw new Error(name);
  return read.value;
}

describe.each(demo)('at each stage of %s', (name) => {
  const patch = demoPatch(name);
  const ids = patch.modules.map((m) => m.id);
  // No stage, and half a dozen all over the patch.
  const places = [null, ...ids.filter((_, i) => i % Math.ceil(ids.length / 6) === 0)];
  const predicted = predictedOf(deskOf(patch));

  it('a command that cannot run says why, and no key means two', () => {
    for (const id of places) {
      const desk = deskOf(patch);
      desk.getState().select(id);
      const { all } = commandsOf(desk, predicted);
      for (const c of all) if (!c.can) expect(c.why, `${c.id} at ${id}`).toMatch(/^[A-Z].*\.$/);
      const keys = all.flatMap((c) => c.keys?.split(',') ?? []);
      expect(new Set(keys).size).toBe(keys.length);
      expect(new Set(all.map((c) => c.id)).size).toBe(all.length);
    }
  });

  it('a command that can run leaves a patch that can be stored, and one undo takes it back', () => {
    for (const id of places) {
      const desk = deskOf(patch);
      desk.getState().select(id);
      for (const { id: command, can } of commandsOf(desk, predicted).all) {
        if (!can) continue;
        const own = deskOf(patch);
        own.getState().select(id);
        const { run, begun } = commandsOf(own, predicted);
        run(command);
        const after = own.getState().patch;
        if (after !== patch) {
          expect(parsePatch(printPatch(after)).ok, `${command} at ${id}`).toBe(true);
          own.getState().undo();
          expect(printPatch(own.getState().patch)).toEqual(printPatch(patch));
        }
        // What asks for a choice has some.
        for (const task of begun)
          expect(planOf(task, predicted).choices.length, `${command} at ${id}`).toBeGreaterThan(0);
      }
    }
  });
});

/** A source, two stages and a destination; the strip shows their path. */
const row = (): DeskStore =>
  deskOf(
    patchOf({ l: ['lfo'], a: ['offset'], s: ['slew'], f: ['filter'] }, [
      'l.out > a.in',
      'a.out > s.in',
      's.out > f.cutoff',
    ]),
  );
const order = (desk: DeskStore): string[] => predictedOf(desk).strip!.frames.map((f) => f.module.id);

describe('a way along the path', () => {
  it('goes from frame to frame, and stays at either end', () => {
    const desk = row();
    const chosen = (id: 'next' | 'previous'): string | null => {
      commandsOf(desk).run(id);
      return desk.getState().selected;
    };
    expect(Array.from({ length: 5 }, () => chosen('previous'))).toEqual(['f', 's', 'a', 'l', 'l']);
    expect(Array.from({ length: 4 }, () => chosen('next'))).toEqual(['a', 's', 'f', 'f']);
  });
});

describe('a stage that is moved', () => {
  it('changes places with its neighbour; a source and the destination stay', () => {
    const desk = row();
    desk.getState().select('a');
    expect(commandsOf(desk).named('earlier').can).toBe(false);
    commandsOf(desk).run('later');
    expect(order(desk)).toEqual(['l', 's', 'a', 'f']);
    commandsOf(desk).run('earlier');
    expect(order(desk)).toEqual(['l', 'a', 's', 'f']);
    for (const id of ['l', 'f']) {
      desk.getState().select(id);
      const { named } = commandsOf(desk);
      expect([named('earlier').can, named('later').can]).toEqual([false, false]);
    }
  });
  it('with another beside it passes the neighbour of both; apart they stay', () => {
    const desk = deskOf(
      patchOf({ l: ['lfo'], a: ['offset'], s: ['slew'], v: ['rectifier'], f: ['filter'] }, [
        'l.out > a.in',
        'a.out > s.in',
        's.out > v.in',
        'v.out > f.cutoff',
      ]),
    );
    desk.getState().select('a');
    desk.getState().selectAlso('s');
    commandsOf(desk).run('later');
    expect(order(desk)).toEqual(['l', 'v', 'a', 's', 'f']);
    desk.getState().undo();
    desk.getState().select('a');
    desk.getState().selectAlso('v');
    expect(commandsOf(desk).named('later').can).toBe(false);
  });
});

describe('a stage that is put in', () => {
  const into = (select: string | null, desk = row()): Task | undefined => {
    desk.getState().select(select);
    const { begun, run } = commandsOf(desk);
    run('insert');
    return begun[0];
  };
  it('goes before the chosen one, behind a source, and before the destination where none is chosen', () => {
    expect(into('s')).toEqual({ do: 'insert', socket: 's.in' });
    expect(into('l')).toEqual({ do: 'insert', socket: 'a.in' });
    expect(into(null)).toEqual({ do: 'insert', socket: 'f.cutoff' });
  });
  it('goes behind a source that leads nowhere yet, and is refused where there is nothing', () => {
    const lone = deskOf(patchOf({ l: ['lfo'] }));
    expect(into('l', lone)).toEqual({ do: 'after', output: 'l.out' });
    const empty = commandsOf(deskOf(patchOf({}))).named('insert');
    expect([empty.can, empty.why]).toEqual([false, expect.stringContaining('Add a destination first')]);
  });
});

describe('several stages at once', () => {
  it('are duplicated, bypassed and removed by one edit each, named by how many', () => {
    for (const id of ['duplicate', 'bypass', 'remove']) {
      const desk = row();
      desk.getState().select('a');
      desk.getState().selectAlso('s');
      const { named } = commandsOf(desk);
      expect(named(id).title).toContain('2 stages');
      named(id).run();
      expect(desk.getState().history.past).toHaveLength(1);
    }
  });
  it('are not replaced together', () => {
    const desk = row();
    desk.getState().select('a');
    desk.getState().selectAlso('s');
    expect(commandsOf(desk).named('replace')).toMatchObject({
      can: false,
      why: expect.stringContaining('one at a time'),
    });
  });
  it('a bypassed one is offered to be put back, and then is as it was', () => {
    const desk = row();
    const sorted = (): object => {
      const { cables, ...rest } = desk.getState().patch;
      return { ...rest, cables: cables.map((c) => `${c.from} > ${c.to}`).sort() };
    };
    const before = sorted();
    desk.getState().select('a');
    commandsOf(desk).run('bypass');
    expect(order(desk)).toEqual(['l', 's', 'f']);
    expect(commandsOf(desk).named('bypass').title).toMatch(/^Restore /);
    commandsOf(desk).run('bypass');
    expect(order(desk)).toEqual(['l', 'a', 's', 'f']);
    expect(sorted()).toEqual(before);
  });
  it('a pin is set and taken away by the same key', () => {
    const desk = row();
    desk.getState().select('a');
    commandsOf(desk).run('pin');
    expect(desk.getState().patch.probes.map((p) => p.at)).toEqual(['a.out']);
    commandsOf(desk).run('pin');
    expect(desk.getState().patch.probes).toEqual([]);
  });
});

describe('a path that joins', () => {
  it('is followed, and left again', () => {
    const desk = deskOf(
      patchOf({ l: ['lfo'], k: ['lfo'], m: ['mixer'], f: ['filter'] }, [
        'l.out > m.in1',
        'k.out > m.in2',
        'm.out > f.cutoff',
      ]),
    );
    expect(commandsOf(desk).named('back').can).toBe(false);
    commandsOf(desk).run('joining');
    expect(desk.getState().trail).toEqual(['f.cutoff', 'm.in2']);
    expect(order(desk).at(0)).toBe('k');
    commandsOf(desk).run('back');
    expect(desk.getState().trail).toEqual(['f.cutoff']);
    expect(commandsOf(row()).named('joining')).toMatchObject({ can: false, why: 'No other path joins this one.' });
  });
});
