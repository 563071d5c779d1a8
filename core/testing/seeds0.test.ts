import { lookAtSeeds } from './seeds';

lookAtSeeds(0);
