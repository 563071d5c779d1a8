export { addScaled, clamped, fill, powers, products, saturate, scaled, sumOfTwo } from './blocks';
export { cutoffs, lineSlew, shareSlew, singing, stateVariable } from './filters';
export { countOutside, extremes, extremesAndSums } from './stats';
export { phases, pulse, ramp, saw, sine, square, sweep, triangle, withinCycles } from './waves';
