/** `5.2 MB` */
export const inMegabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)}\u00a0MB`;
