import { PatchBuilder } from '../build';
import { set } from '../chain';
import { tracesToChoose } from '../traces';
import type { Skill } from '../types';

export const stepped: Skill = {
  name: 'stepped',
  group: 'shape',
  text: 'Stepped and smooth',
  draw(d, level) {
    const b = new PatchBuilder();
    const slow = b.add('lfo', 'Swell', {
      rateHz: 0.5,
      shape: d.pick(level < 3 ? ['triangle', 'rampUp'] : ['triangle', 'sine', 'rampUp', 'rampDown']),
      lowVolts: d.pick([-5, 0]),
      highVolts: 5,
    });
    const bpm = d.pick(level < 3 ? [120, 240] : [120, 180, 240]);
    const key = b.add('clock', 'Key', { bpm, width: 0.5 });
    const held = b.add('sampleHold', 'Hold');
    b.plug(`${slow}.out`, `${held}.in`).plug(`${key}.out`, `${held}.clock`);
    const found = tracesToChoose(d, b.patch('Stepped'), `${held}.out`, [
      { text: 'That follows while the clock is high: track and hold.', edits: [set('hold.mode', 'track')] },
      { text: 'That has half as many steps.', edits: [set('key.bpm', bpm / 2)] },
      { text: 'That has twice as many steps.', edits: [set('key.bpm', bpm * 2)] },
      { text: 'That samples another wave.', edits: [set('swell.shape', 'rampDown')] },
      { text: 'That samples at other moments of the wave.', edits: [set('swell.phase', 0.5)] },
    ]);
    return found && { ...found, text: 'Hold samples at each rising edge. Which of these leaves it?' };
  },
};
