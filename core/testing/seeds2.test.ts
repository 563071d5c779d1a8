import { lookAtSeeds } from './seeds';

lookAtSeeds(2);
