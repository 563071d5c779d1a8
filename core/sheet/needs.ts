import { placeName } from '../document/names';
import { kindTitle } from '../kinds';
import type { SheetNeeds } from './types';

/** What a patch needs at the rack, a line each: modules with their channels, cables, splits, and what is missing. */
export function needsLines(needs: SheetNeeds): string[] {
  const named = needs.modules.map((m) => ({ id: m.module, kind: m.kind, label: m.label }));
  return [
    ...needs.modules.map(
      (m) =>
        `${m.label} (${kindTitle(m.kind)}${m.channel ? `, ${m.channel}` : ''})${m.standIn ? `; substitute: ${m.standIn}` : ''}`,
    ),
    `${needs.cables} ${needs.cables === 1 ? 'cable' : 'cables'}`,
    ...needs.splits.map((s) => `${placeName(named, s.at)} splits ${s.ways} ways`),
    ...needs.short.map((s) => `Missing: ${placeName(named, s.module)} (${kindTitle(s.kind)}): ${s.why}`),
  ];
}
