import { describe, expect, it } from 'vitest';
import { buildGraph } from '@/core';
import { patchOf } from '@/core/testing/patch';
import type { Predicted } from '@/ui/session/usePrediction';
import { looseModules } from './loose';

const parts = {
  slow: ['lfo'],
  trim: ['attenuverter'],
  tone: ['filter', {}, { label: 'Tone' }],
  idle: ['lfo', {}, { label: 'Idle' }],
  deaf: ['inverter', {}, { label: 'Deaf' }],
} as const;
const cables = ['slow.out > trim.in', 'trim.out > tone.cutoff', 'deaf.out > tone.pitch'] as const;
const looseIn = (more: object = {}, ends = ['tone.cutoff']) =>
  looseModules({ graph: buildGraph(patchOf(parts, cables, {}, more)) } as Predicted, ends).map(
    ({ label, why }) => `${label}: ${why}`,
  );

describe('stages that do nothing', () => {
  it('are those that reach nothing, and those that get nothing; a source needs nothing, an end reaches nobody', () => {
    expect(looseIn()).toEqual(['Idle: reaches nothing', 'Deaf: gets nothing']);
    expect(looseIn({}, [])).toEqual(['Tone: reaches nothing', 'Idle: reaches nothing', 'Deaf: gets nothing']);
  });
  it('a normal is as good as a cable', () => {
    expect(looseIn({ normals: [{ to: 'deaf.in', from: 'idle.out' }] })).toEqual([]);
  });
  it('one that is bypassed is told as that, whatever it reaches', () => {
    expect(looseIn({ bypassed: [{ module: 'trim', cables: [] }] })[0]).toBe('Attenuverter: bypassed');
  });
});
