import { api } from './api';

/** Between two attempts, milliseconds. */
const PAUSE = 1000;

/**
 * Reads a part of the page that is shown later. While the server does not answer it is tried again, and the page stays;
 * without this a part that cannot be read takes the whole page away.
 *
 * @throws what is wrong with the part itself: it cannot be read though the server answers.
 */
export function patiently<T>(read: () => Promise<T>, pause = PAUSE): () => Promise<T> {
  return async () => {
    for (let answered = false; ;) {
      try {
        return await read();
      } catch (error) {
        if (answered) throw error;
        // One attempt more once it answers: it may have come back in between.
        answered = await api.health().then(
          () => true,
          () => false,
        );
        await new Promise((resolve) => setTimeout(resolve, pause));
      }
    }
  };
}
