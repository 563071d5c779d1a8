import { angleOf } from '../units/knob';

const SIZE = 32;
const RADIUS = 12;

/** A point of a circle, its angle clockwise from noon. */
function at(degrees: number, radius: number): readonly [number, number] {
  const a = (degrees * Math.PI) / 180;
  return [SIZE / 2 + radius * Math.sin(a), SIZE / 2 - radius * Math.cos(a)];
}

const figure = (x: number): string => x.toFixed(2);

/** A knob with its pointer at a position 0..1, as the lines of an SVG of 32 by 32. */
export function knobLines(position: number): { readonly arc: string; readonly pointer: string; readonly size: number } {
  const [x0, y0] = at(angleOf(0), RADIUS);
  const [x1, y1] = at(angleOf(1), RADIUS);
  const [px, py] = at(angleOf(Math.min(1, Math.max(0, position))), RADIUS + 2);
  const [cx, cy] = at(0, 0);
  return {
    arc: `M${figure(x0)} ${figure(y0)}A${RADIUS} ${RADIUS} 0 1 1 ${figure(x1)} ${figure(y1)}`,
    pointer: `M${figure(cx)} ${figure(cy)}L${figure(px)} ${figure(py)}`,
    size: SIZE,
  };
}

/** The same as a whole SVG, black on white. */
export function knobSvg(position: number): string {
  const { arc, pointer, size } = knobLines(position);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 ${size} ${size}"><path d="${arc}" fill="none" stroke="#1C2B33" stroke-width="1"/><path d="${pointer}" fill="none" stroke="#1C2B33" stroke-width="2" stroke-linecap="round"/></svg>`;
}
