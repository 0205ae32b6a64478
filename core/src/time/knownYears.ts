/** Nothing is stored, shown or planned outside of these: 1 January 1500 to 1 January 2200. */
export const FIRST_TIME = Date.UTC(1500, 0, 1);
export const LAST_TIME = Date.UTC(2200, 0, 1);
