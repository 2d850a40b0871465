/** Whether a number keeps to the limits of what the API takes. */
export const within = (value: number, least: number, most: number) => value >= least && value <= most;
