import jsQR from 'jsqr';
import { ticksFromCode } from '@/core';
import type { Sheet } from '@/core';
import type { Tick, Ticks } from '@/wire/requests';

/** A picture is looked through at no more than this, pixels a side. */
const MOST_PIXELS = 1600;

async function pixelsOf(file: File): Promise<ImageData> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error(`${file.name} is not a readable image.`);
  });
  const scale = Math.min(1, MOST_PIXELS / Math.max(picture.width, picture.height));
  const [width, height] = [
    Math.max(1, Math.round(picture.width * scale)),
    Math.max(1, Math.round(picture.height * scale)),
  ];
  const canvas = new OffscreenCanvas(width, height);
  const brush = canvas.getContext('2d');
  if (!brush) throw new Error('This browser cannot look at pictures.');
  brush.drawImage(picture, 0, 0, width, height);
  picture.close();
  return brush.getImageData(0, 0, width, height);
}

function fromCode(sheet: Sheet, code: string): Ticks {
  const { ticks, at } = ticksFromCode(sheet, code);
  return Object.fromEntries(ticks.map(({ step, ...tick }) => [step, { ...tick, at }]));
}

/** Of what stands there the texts, by their names; null where there are none. */
function textsIn(x: unknown): Record<string, string> | null {
  const entries = Object.entries(typeof x === 'object' && x !== null ? x : {}).filter(
    (e): e is [string, string] => typeof e[1] === 'string',
  );
  return entries.length > 0 ? Object.fromEntries(entries) : null;
}

function fromFile(text: string, name: string): Ticks {
  const fault = new Error(`${name} is not a ticks file.`);
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    throw fault;
  }
  const { format, ticks } = (read ?? {}) as { readonly format?: unknown; readonly ticks?: unknown };
  if (format !== 'fenvo.ticks' || typeof ticks !== 'object' || ticks === null) throw fault;
  return Object.fromEntries(
    Object.entries(ticks as Record<string, Partial<Record<keyof Tick, unknown>>>).flatMap(([id, t]) => {
      if (typeof t.at !== 'number' || (t.read !== undefined && typeof t.read !== 'string')) return [];
      const reads = textsIn(t.reads);
      return [
        [
          id,
          { done: t.done === true, at: t.at, ...(t.read !== undefined && { read: t.read }), ...(reads && { reads }) },
        ],
      ];
    }),
  );
}

/**
 * Ticks that were made elsewhere: a file from the one-file sheet, or a picture of its code.
 *
 * @throws Error that says what is wrong with it.
 */
export async function ticksIn(sheet: Sheet, file: File): Promise<Ticks> {
  if (file.name.endsWith('.json')) return fromFile(await file.text(), file.name);
  const { data, width, height } = await pixelsOf(file);
  const found = jsQR(data, width, height);
  if (!found) throw new Error(`No readable code in ${file.name}. Take the photo closer and straight on.`);
  return fromCode(sheet, found.data);
}
