import { tracesToCsv } from '@/core';
import { saveFile } from '@/ui/parts/files';
import type { Trace } from './view';

/** Traces and pictures as files. */

export function saveCsv(name: string, traces: readonly Trace[], sampleRate: number): void {
  const parts = [...tracesToCsv(new Map(traces.map((t) => [t.socket, t.probe.trace])), sampleRate)];
  saveFile(`${name}.csv`, new Blob(parts, { type: 'text/csv' }));
}

export async function saveWav(name: string, traces: readonly Trace[], sampleRate: number): Promise<void> {
  const { tracesToWav } = await import('@/core/formats/wav');
  const bytes = tracesToWav(
    traces.map((t) => t.probe.trace),
    sampleRate,
  );
  saveFile(`${name}.wav`, new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'audio/wav' }));
}

/** A drawing by itself: with its colours and type written in, as no style sheet goes along. */
export function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const originals = [svg, ...svg.querySelectorAll<SVGElement>('*')];
  const copies = [copy, ...copy.querySelectorAll<SVGElement>('*')];
  originals.forEach((original, i) => {
    const style = getComputedStyle(original);
    for (const property of ['fill', 'stroke', 'font-family', 'font-size'] as const) {
      copies[i]?.setAttribute(property, style.getPropertyValue(property));
    }
  });
  const { width, height } = svg.getBoundingClientRect();
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [key, value] of Object.entries({ width, height, fill: getComputedStyle(document.body).backgroundColor })) {
    paper.setAttribute(key, String(value));
  }
  copy.prepend(paper);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('viewBox', `0 0 ${width} ${height}`);
  return new XMLSerializer().serializeToString(copy);
}

export function saveSvg(name: string, svg: SVGSVGElement): void {
  saveFile(`${name}.svg`, new Blob([standalone(svg)], { type: 'image/svg+xml' }));
}

/** The same drawing in twice as many pixels as on the screen. */
export async function savePng(name: string, svg: SVGSVGElement): Promise<void> {
  const { width, height } = svg.getBoundingClientRect();
  const url = URL.createObjectURL(new Blob([standalone(svg)], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    await new Promise<void>((resolve, reject) => {
      image.onload = () => resolve();
      image.onerror = () => reject(new Error('The image could not be created. Export it as SVG instead.'));
      image.src = url;
    });
    const canvas = Object.assign(document.createElement('canvas'), { width: 2 * width, height: 2 * height });
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error('The image could not be created. Export it as SVG instead.');
    saveFile(`${name}.png`, blob);
  } finally {
    URL.revokeObjectURL(url);
  }
}
