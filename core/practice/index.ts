export { parseAnswer } from './answer';
export { exerciseOf, markOf, worked } from './exercise';
export { readingsAt } from './faultMark';
export { allSkills, skillNamed } from './skills';
export { LEVELS } from './types';
export type { Exercise, Level } from './types';
