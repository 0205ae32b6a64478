/** Where the chequered border of the rail lies, and how high the rail is, px. */
export const BORDER_Y = 46;
export const BORDER = 9;
export const HEIGHT = 78;
