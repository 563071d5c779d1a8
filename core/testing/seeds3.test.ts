import { lookAtSeeds } from './seeds';

lookAtSeeds(3);
