import { idOf } from '@/core';
import { stageChoices } from '@/ui/parts/choices';
import { keysShown } from './commandTable';
import type { Command } from './commandTable';
import type { Given } from './given';
import type { PaletteEntry } from './Palette';
import { insertion } from './stageCommands';
import { planOf } from './tasks';

/** All that can be done or gone to, for who types its name. */
export function entriesOf(given: Given, list: readonly Command[]): PaletteEntry[] {
  const { desk, predicted } = given;
  const { selected, edit, select, showEnd } = desk.getState();
  const commands = list
    .filter((c) => c.can && c.id !== 'palette')
    .map((c): PaletteEntry => ({
      key: `command ${c.id}`,
      title: c.title,
      says: c.keys ? keysShown(c.keys) : '',
      group: 'Commands',
      run: c.run,
    }));
  const stages = predicted.graph.modules.map((m): PaletteEntry => ({
    key: `stage ${m.id}`,
    title: m.label,
    says: `${m.kind.title} · ${m.kind.brief(m.params)}`,
    group: 'Stages of this patch',
    run() {
      const end = given.ends.find((e) => idOf(e) === m.id);
      if (end !== undefined) showEnd(end);
      select(m.id);
    },
  }));
  const into = insertion(predicted, selected);
  const inserts = stageChoices.map((c): PaletteEntry => ({
    ...c,
    key: `insert ${c.key}`,
    group: 'Insert here',
    run() {
      const done = into && planOf(into, predicted).make(c.key);
      if (!done) return;
      edit(done.label, done.edits);
      if (done.select !== undefined) select(done.select);
    },
  }));
  return [...commands, ...stages, ...(into === null ? [] : inserts)];
}
