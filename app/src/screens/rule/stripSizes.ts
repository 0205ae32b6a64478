/** Height of the line of time with its alarms, and of the course above it, px. */
export const STRIP_HEIGHT = 34;
export const COURSE_HEIGHT = 72;
/** Into how many strips the rehearsed time is cut. */
export const STRIPS = 3;
