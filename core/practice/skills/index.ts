import { attenuate } from './attenuate';
import { invert } from './invert';
import { offset } from './offset';
import { gainAndOffset } from './gainAndOffset';
import { sumOfTwo } from './sumOfTwo';
import { average } from './average';
import { product } from './product';
import { rectify } from './rectify';
import { clip } from './clip';
import { ownKnob } from './ownKnob';
import { voltsOctaves } from './voltsOctaves';
import { voltsNotes } from './voltsNotes';
import { linearDb } from './linearDb';
import { exponentialDb } from './exponentialDb';
import { windowPercent } from './windowPercent';
import { timeUnderCv } from './timeUnderCv';
import { whichTrace } from './whichTrace';
import { polarity } from './polarity';
import { lfoPhase } from './lfoPhase';
import { slewedGate } from './slewedGate';
import { stepped } from './stepped';
import { sumOfShapes } from './sumOfShapes';
import { neverClosed } from './neverClosed';
import { unityAtPeak } from './unityAtPeak';
import { leakAtRest } from './leakAtRest';
import { duckingDepth } from './duckingDepth';
import { slewReach } from './slewReach';
import { slewArrives } from './slewArrives';
import { swingLost } from './swingLost';
import { hangingGate } from './hangingGate';
import { passiveLoad } from './passiveLoad';
import { passiveMult } from './passiveMult';
import { outputsJoined } from './outputsJoined';
import { normalActs } from './normalActs';
import { ringFrequencies } from './ringFrequencies';
import { clipHarmonic } from './clipHarmonic';
import { noteLies } from './noteLies';
import { setOne } from './setOne';
import { setTwo } from './setTwo';
import { findFault } from './findFault';
import { hearDeeper } from './hearDeeper';
import { hearFaster } from './hearFaster';
import { hearInverted } from './hearInverted';
import { hearSlewed } from './hearSlewed';
import { hearExponential } from './hearExponential';
import { hearApart } from './hearApart';
import type { Skill } from '../types';

/** Every skill, by group and as they build on each other. */
export const allSkills: readonly Skill[] = [
  attenuate,
  invert,
  offset,
  gainAndOffset,
  sumOfTwo,
  average,
  product,
  rectify,
  clip,
  ownKnob,
  voltsOctaves,
  voltsNotes,
  linearDb,
  exponentialDb,
  windowPercent,
  timeUnderCv,
  whichTrace,
  polarity,
  lfoPhase,
  slewedGate,
  stepped,
  sumOfShapes,
  neverClosed,
  unityAtPeak,
  leakAtRest,
  duckingDepth,
  slewReach,
  slewArrives,
  swingLost,
  hangingGate,
  passiveLoad,
  passiveMult,
  outputsJoined,
  normalActs,
  ringFrequencies,
  clipHarmonic,
  noteLies,
  setOne,
  setTwo,
  findFault,
  hearDeeper,
  hearFaster,
  hearInverted,
  hearSlewed,
  hearExponential,
  hearApart,
];

const byName = new Map(allSkills.map((s) => [s.name, s]));

export const skillNamed = (name: string): Skill | undefined => byName.get(name);
