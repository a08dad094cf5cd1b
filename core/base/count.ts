/** How far what waits is counted: nobody reads more, and counting on would read everything there is. */
export const MOST_COUNTED = 1000
