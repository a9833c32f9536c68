/** What this device's time is ahead of UTC, in milliseconds. */
export const offsetMs = (): number => -new Date().getTimezoneOffset() * 60_000;
