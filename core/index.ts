export { BoundsEngine } from './bounds/bounds';
export type { ModuleBounds } from './bounds/bounds';
export { differencesOf, differenceEdits } from './edit/differences';
export { editsBetween, inverseOf, isSame } from './edit/between';
export { duplicateChain, duplicateStages } from './edit/copies';
export { replaceStage } from './edit/replace';
export {
  addModule,
  bypassStages,
  connect,
  feed,
  insertAfter,
  insertStage,
  isBypassed,
  moveStage,
  putBack,
  removeStages,
} from './edit/stages';
export type { Added } from './edit/stages';
export { EditSequence } from './edit/editSequence';
export { idOf, nameOf, partsOf, socketAt } from './document/sockets';
export type { Difference } from './edit/differences';
export { applyEdit, applyEdits } from './edit/edit';
export { freeId } from './edit/editSequence';
export type { Edit } from './edit/edit';
export { completeParams } from './document/params';
export { knobsIn } from './document/knobs';
export { knobPlace, placeName, recordingsOf, withNames, socketPlace } from './document/names';
export { blank, parsePatch } from './document/parse';
export { withOldDefaults } from './document/oldDefaults';
export { withKnownQuantities } from './document/oldTargets';
export { printPatch } from './document/print';
export { patchSchema, rackSchema } from './document/schema';
export { stateOf } from './document/state';
export { ASSET, LIMITS, OHMS } from './document/types';
export { NOISE } from './document/limits';
export { usualNoise } from './answers/noise';
export { hasLevel } from './answers/levels';
export { arrivalAt } from './answers/timeToArrive';
export { SETTINGS } from './document/patch';
export type {
  Bypass,
  Cable,
  Dismissal,
  Hand,
  HandPoint,
  Json,
  ModuleDoc,
  Normal,
  Patch,
  PatchError,
  PatchState,
  Probe,
  Result,
  Settings,
  Target,
  Variant,
} from './document/types';
export { explain, issueTitle } from './findings';
export { checkedCures } from './findings/promise';
export type { Finding, Found, Severity } from './findings/finding';
export { tracesToCsv } from './formats/csv';
export { tracesToWav, WAV_FULL_VOLTS } from './formats/wav';
export { buildGraph } from './graph/graph';
export type { Graph, GraphInput, GraphModule } from './graph/graph';
export type { Wiring } from './graph/wiring';
export { CONTROLS } from './document/controls';
export { HANDS } from './document/hands';
export { auditionable, auditioned } from './live/auditioned';
export type { Auditioning } from './live/auditioned';
export { handAt } from './graph/tracks';
export { controlRate, modulesUpTo } from './graph/upstream';
export { rangeOfTrace } from './kinds/recording';
export { allKinds, FADER, isFaderKind, kindNamed, kindTitle, searchWords } from './kinds';
export type { AssetLookup, EndSpec, InputSpec, Kind } from './kinds/kind';
export { inSentence, isSetup, knobsOf, optionLabel, paramLabel } from './kinds/knobs';
export { ownEnds, socketLabel } from './kinds/kind';
export { LEAST_DRAWS, tolerance } from './answers/tolerance';
export type { Bins, ReadingTolerance, ToleranceReport } from './answers/tolerance';
export { USUAL_ERRORS } from './answers/errors';
export type { ModuleErrors } from './answers/errors';
export type { Share } from './answers/shares';
export type { Step } from './kinds/params';
export { scaleNamed, scaleNames, scaleSemitones, scaleTitle } from './units/scales';
export type { GesturePoint, NumberSpec, ParamSpec, ParamValue, ParamValues } from './kinds/params';
export type { Range } from './law/affine';
export { endsOf, flipsAt, openingEnd, stripTo } from './graph/strip';
export { angleOf, clockOf, positionOf, quantityFault, readQuantity, readTyped, valueAt } from './units/knob';
export type { PanelPoint, Travel } from './units/knob';
export {
  briefSeconds,
  figureText,
  rulerSeconds,
  showDb,
  showHz,
  showNumber,
  showQuantity,
  showRange,
  showSeconds,
  showVoltRange,
  showVolts,
  withUnit,
} from './units/show';
export { countsOctaves, gainOf } from './units/ratios';
export { hzOfNote, noteOfHz, noteOfVolts } from './units/pitch';
export type { Frame, Joining, Strip } from './graph/strip';
export { driveFor } from './answers/drive';
export { freeFaults, freeKnobs } from './solve/problem/knobs';
export type { FreeKnob } from './solve/problem/knobs';
export { helpersAt } from './solve/helpers';
export type { HelperOptions } from './solve/types';
export { standingsOf } from './solve/problem/runner';
export { standingsIn } from './solve/problem/standing';
export { mayNeedTrace, needsTrace } from './solve/problem/errorOf';
export { settingOf } from './solve/problem/setting';
export type { TargetStanding } from './solve/problem/standing';
export { placeOfTarget, unitOf } from './graph/place';
export { solve } from './solve/solve';
export { editsOf } from './solve/types';
export type { KnobSetting, Solution, SolveAnswer, SolveOptions } from './solve/types';
export { figureLimits, hangsOn, isTarget, ofArrival, TARGET_SHAPES, WANTS, wantOf } from './document/targets';
export type { TargetShape, Want } from './document/targets';
export { targetText, targetUnit } from './document/targetText';
export { SETTING_LABELS } from './document/settingLabels';
export { goalRequest, goalSources } from './plan/goal';
export { openedEnd } from './plan/opened';
export { outputEdits } from './plan/output';
export type { Goal, GoalSource } from './plan/goal';
export { glance } from './answers/glance';
export type { Glance, SocketPrediction } from './answers/glance';
export { patchMap, REACH_RANK } from './answers/map';
export type { MapCell, MapRow, PatchMap } from './answers/map';
export { missText } from './answers/miss';
export { predictGraph } from './answers/predict';
export { knobsFor, predict } from './solve/cured';
export type { Prediction } from './answers/predict';
export { guaranteedApart, readingFor } from './answers/readings';
export type { Reading } from './answers/readings';
export { measure } from './simulate/measures';
export { LEVEL_SECONDS, levelDb, levelOf, levelSteps, makeUpDb } from './simulate/level';
export { jointAt } from './simulate/joint';
export type { JointAt } from './simulate/joint';
export { productLines } from './answers/products';
export { spectrumOf } from './simulate/spectrum';
export type { ProductLine } from './answers/products';
export type { Peak, Spectrum } from './simulate/spectrum';
export type { Measures } from './simulate/measures';
export { simulate } from './simulate/simulate';
export { simulateGraph } from './simulate/simulate';
export { Simulator } from './simulate/simulator';
export type { Simulation } from './simulate/types';
export { parseRack } from './document/rack';
export { printRack } from './document/printRack';
export { modeSockets as socketsOfMode } from './document/rackModes';
export { blankRack, channelTitle, placeNamed, placesOf } from './document/rackTypes';
export { RACK_LIMITS } from './document/rackFields';
export type { Channel, ChannelMode, PanelScale, RackPlace, Rack, RackModule } from './document/rackTypes';
export { aliasesOf, catalogue, moduleOfType, typeNamed } from './rack/catalogue';
export type { ModuleType } from './rack/catalogue';
export { channelFaults, channelLimits, settledEdits } from './rack/limits';
export { seatOffers } from './plan/seats';
export type { SeatOffer } from './plan/seats';
export { figureOf } from './units/knob';
export type { ChannelFault, ChannelLimits } from './rack/limits';
export { assignRack } from './plan/assign';
export type { Assigned, Assignment, Short } from './plan/assign';
export { planChain } from './plan/plan';
export type { Plan, Proposal } from './plan/plan';
export { planEnds } from './plan/planEnds';
export type { EndsPlan } from './plan/planEnds';
export { readEndsRequest, readPlanRequest } from './plan/request';
export type { EndsRequest, PlanRequest, SourceKind, Wish } from './plan/request';
export { benchReadings, SimulatedRack } from './bench/simulated';
export { calibrate, UNUSED_CHANNEL, withMeasured } from './bench/calibrate';
export type { Calibration, LearnedTrait } from './bench/calibrate';
export { diagnose } from './bench/diagnose';
export { traceFigures } from './bench/figures';
export { faultText } from './bench/faultText';
export { rangesWith } from './bench/ghost';
export { layOver, resampled } from './bench/overlay';
export type { Overlay } from './bench/overlay';
export { faultsOf, placesToRead, surpriseFault } from './bench/places';
export type { PlaceToRead } from './bench/places';
export { changeSchema, sheetSchema } from './sheet/schema';
export { setListOf } from './sheet/setList';
export type { SetEntry } from './sheet/setList';
export type { Change, ChangeStep } from './sheet/change';
export { judge, readMeter } from './bench/judge';
export type { Verdict } from './bench/judge';
export { READ_QUANTITIES, readingUnit } from './bench/quantities';
export type { ReadQuantity } from './bench/quantities';
export type { BenchReading } from './bench/readings';
export { LOG_LIMITS, logSchema, parseLog, standingReadings } from './bench/log';
export { packLog, readingsToCsv, unpackLog } from './formats/logFile';
export type { LogFiles } from './formats/logFile';
export type { BenchLog, LogReading, LogSession } from './bench/log';
export { asMeasured } from './rack/asMeasured';
export type { Seat } from './rack/asMeasured';
export type { Cause, Diagnosis } from './bench/diagnose';
export { parseFault } from './bench/faultFields';
export type { Fault } from './bench/faults';
export { parseReadings, readingsDocument, readingsSchema } from './bench/readings';
export { changeOf } from './sheet/change';
export { sheetOf } from './sheet/sheet';
export { stepsMark, ticksFromCode, ticksToCode } from './sheet/tickCode';
export { sheetToCsv } from './sheet/csv';
export { NO_OUTPUT } from './sheet/types';
export { POINTER } from './rack/pointers';
export { METER_NAMES, meterText, partText, sheetParts, sheetToMarkdown } from './sheet/markdown';
export { needsLines } from './sheet/needs';
export type { MeterReading, MeterSpec, Sheet, SheetStep } from './sheet/types';
export { knobLines, knobSvg } from './sheet/knobPicture';
export { knobName } from './sheet/settings';
export { patchPicture } from './sheet/picture';
export { LiveEngine } from './live/engine';
export { earsOffered, usualEars } from './live/ears';
export { heardAlone } from './live/heardAlone';
export type { Ears } from './live/ears';
export { LEAST_DB, MOST_DB, START_DB } from './live/listening';
export { Meter, Player } from './live/player';
export { testVoice } from './live/testVoice';
export { macroEdits } from './macro/macro';
export type { MacroFault, Occupied } from './macro/macro';
export { endAt } from './macro/reach';
export { macrosIn } from './macro/read';
export { CURVES } from './document/macros';
export type { Curve, MacroDoc } from './document/types';
export type { Macro, MacroRow } from './macro/types';
