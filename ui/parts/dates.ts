import dayjs from 'dayjs';

/** A moment as every screen writes it: `4 Mar 2025, 14:03`. */
export const dateTime = (moment: string | number | null): string =>
  moment === null ? '' : dayjs(moment).format('D MMM YYYY, HH:mm');
