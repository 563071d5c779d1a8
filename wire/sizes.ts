/** `5.2 MB` */
export const inMegabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)}\u00a0MB`;

/** A part of a backup that is sent at once, bytes at most. */
export const PART = 8_000_000;

/** A request that names many patches, bytes at most. */
export const LONG_LIST = 1_000_000;
