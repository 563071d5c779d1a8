import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { predict } from '../answers/predict';
import { mutateDocument, mutateText } from './mutate';
import { randomPatch } from './randomPatch';

export interface DocumentsReport {
  readonly read: number;
  readonly refused: number;
  readonly slowestMs: number;
  readonly faults: readonly string[];
}

/** Sends changed documents through parse and predict: a proper refusal or an answer, nothing else. */
export function checkDocuments(from: number, count: number): DocumentsReport {
  let [read, refused, slowestMs] = [0, 0, 0];
  const faults: string[] = [];
  for (let seed = from; seed < from + count; seed++) {
    const document = JSON.parse(
      JSON.stringify(printPatch(randomPatch(seed, { duration: 0.02, modules: 1 + (seed % 8) }))),
    ) as unknown;
    const start = Date.now();
    try {
      let json: unknown = mutateDocument(document, seed);
      if (seed % 3 === 0) {
        try {
          json = JSON.parse(mutateText(JSON.stringify(document), seed));
        } catch {
          refused++;
          continue;
        }
      }
      const result = parsePatch(json);
      if (!result.ok) {
        refused++;
        if (result.errors.length === 0 || result.errors.some((e) => !e.message))
          faults.push(`seed ${seed}: refused without a reason`);
        continue;
      }
      read++;
      // Refusals are tested, not run times: a long window is cut.
      const long = result.value.settings.duration > 0.1;
      predict(long ? { ...result.value, settings: { ...result.value.settings, duration: 0.02 } } : result.value);
    } catch (error) {
      faults.push(`seed ${seed}: ${error instanceof Error ? error.stack : String(error)}`);
    }
    const took = Date.now() - start;
    if (took > slowestMs) slowestMs = took;
  }
  return { read, refused, slowestMs, faults };
}
