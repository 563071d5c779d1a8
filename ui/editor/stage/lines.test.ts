import { expect, it } from 'vitest';
import { pointsText, readPoints, readScale, readSteps, scaleText, stepsText } from './lines';

it('points read back as they print, and a fault names its line', () => {
  const points = [
    { t: 0, volts: 1 },
    { t: 1.5, volts: -2.25 },
  ];
  expect(readPoints(pointsText(points))).toEqual({ values: points });
  expect(readPoints('0 1\n0 2')).toEqual({ fault: 'Line 2: 0 s must be later than the previous line.' });
  expect(readPoints('0 13')).toHaveProperty('fault');
  expect(readPoints('\n')).toEqual({ fault: 'Enter at least one line.' });
});
it('steps read back as they print', () => {
  const steps = [
    { volts: 0, gate: true, tie: false },
    { volts: 0.25, gate: false, tie: false },
    { volts: -1, gate: true, tie: true },
  ];
  expect(readSteps(stepsText(steps))).toEqual({ values: steps });
  expect(readSteps('1 hold')).toHaveProperty('fault');
  expect(readSteps('1\n'.repeat(65))).toEqual({ fault: '65 steps entered; the limit is 64.' });
});
it('scales are a name or semitones', () => {
  expect(readScale('major')).toEqual({ values: 'major' });
  expect(readScale(scaleText('minorPentatonic'))).toEqual({ values: 'minorPentatonic' });
  expect(readScale('minorPentatonic')).toEqual({ values: 'minorPentatonic' });
  expect(readScale(scaleText([0, 2.5, 7]))).toEqual({ values: [0, 2.5, 7] });
  expect(readScale('minorish')).toHaveProperty('fault');
});
