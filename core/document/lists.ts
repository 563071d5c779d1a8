/** The parts of a patch that are lists, in the order of the document. */
export const LISTS = [
  'modules',
  'cables',
  'normals',
  'targets',
  'hands',
  'macros',
  'probes',
  'order',
  'dismissed',
  'bypassed',
  'variants',
] as const;

export type ListKey = (typeof LISTS)[number];
