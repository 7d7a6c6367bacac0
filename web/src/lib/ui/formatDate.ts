const STYLES = {
  date: new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' }),
  moment: new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' }),
  time: new Intl.DateTimeFormat('en-GB', { timeStyle: 'short' }),
} as const;

/** A date as every screen shows it: "1 Dec 2026", "1 Dec 2026, 10:25" or "10:25". @param at - a date, or its ISO text */
export const formatDate = (at: Date | string | number, style: keyof typeof STYLES = 'moment'): string =>
  STYLES[style].format(new Date(at));
