import fc from 'fast-check';
import { expect, it } from 'vitest';
import { exp, exp2, sineOfTurn, tangentOfTurn } from './fastmath';

const near = (a: number, b: number, relative: number): void =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(relative * Math.abs(b) + 1e-300);

it('powers of two and of e agree with the language’s own to 1e-14', () => {
  fc.assert(fc.property(fc.double({ min: -1000, max: 1000, noNaN: true }), (x) => void near(exp2(x), 2 ** x, 1e-14)));
  fc.assert(fc.property(fc.double({ min: -30, max: 30, noNaN: true }), (x) => void near(exp(x), Math.exp(x), 2e-14)));
  for (let n = -60; n <= 60; n++) expect(exp2(n)).toBe(2 ** n);
  expect([exp2(-5000), exp2(5000), exp2(NaN)]).toEqual([0, Infinity, NaN]);
});
it('sine and tangent of a turn', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (x) => {
      expect(Math.abs(sineOfTurn(x) - Math.sin(2 * Math.PI * x))).toBeLessThan(2e-15);
    }),
  );
  fc.assert(
    fc.property(fc.double({ min: 1e-6, max: 0.2499, noNaN: true }), (x) => {
      near(tangentOfTurn(x), Math.tan(2 * Math.PI * x), 1e-12);
    }),
  );
  expect([0, 0.25, 0.5, 0.75, 1].map(sineOfTurn)).toEqual([0, 1, 0, -1, 0]);
});
