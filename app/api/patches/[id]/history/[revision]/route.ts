import { route } from '@/server/api';
import { keepSchema, revisionSchema } from '@/server/checks/schemas';

export const GET = route(async ({ patches, param }) => {
  const { body, ...head } = await patches.revision(param('id'), param<number>('revision', revisionSchema));
  const text = `${JSON.stringify(head).slice(0, -1)},"patch":${body}}`;
  return new Response(text, { headers: { 'Content-Type': 'application/json' } });
});

/** Keeps a version for ever: `?for=restored`, `started` or `named`. */
export const POST = route(async ({ patches, param, query }) => {
  const revision = param<number>('revision', revisionSchema);
  await patches.keepForEver(param('id'), revision, query(keepSchema).for);
  return { revision };
});
