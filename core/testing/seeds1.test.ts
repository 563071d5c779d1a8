import { lookAtSeeds } from './seeds';

lookAtSeeds(1);
