/** Where the browser keeps that somebody asked to be reminded. */
export const REMIND_KEY = 'palazzo-remind';
