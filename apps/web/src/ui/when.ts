import dayjs from 'dayjs';

/** When something was, by the clock of whoever reads it: the year where it is another than now. */
export function whenWords(at: string, now = new Date()): string {
  const time = dayjs(at);
  return time.format(time.year() === now.getFullYear() ? 'D MMM HH:mm' : 'D MMM YYYY HH:mm');
}
