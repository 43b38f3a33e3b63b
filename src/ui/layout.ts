/** From this width of the window on, CSS px, the steps stand in a column and cards lie side by side. */
export const WIDE = 900;
