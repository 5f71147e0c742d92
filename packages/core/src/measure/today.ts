/**
 * The day it is somewhere, as YYYY-MM-DD.
 *
 * @param timeZone by IANA's name: "Europe/London"
 */
export const todayIn = (timeZone: string): string => new Intl.DateTimeFormat('sv-SE', { timeZone }).format(new Date())
