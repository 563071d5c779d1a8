import { route } from '@/server/api';
import { importLog, LOG_BYTES, logAnswer } from '@/server/benchLog';
import { logSchema } from '@/server/checks/schemas';
import { database } from '@/server/library';

/** Sessions as a log: a zip with photographs and recordings, its JSON alone, or the readings as CSV. */
export const GET = route(({ query }) => {
  const { rack, sessions, simulated, format } = query(logSchema);
  const ids = sessions?.split(',').filter((id) => id !== '');
  return logAnswer(
    {
      ...(rack !== undefined && { rack }),
      ...(ids && { sessions: ids }),
      ...(simulated !== undefined && { simulated }),
    },
    format,
  );
});

/** Brings a log in; the body is the zip, or its JSON. */
export const POST = route(async ({ bytes }) => importLog(await database(), await bytes(LOG_BYTES)), 201);
