// Installs, builds and serves one's own library, and prints its address once it answers.
import { serve } from './serving.mjs';

await serve('data');
