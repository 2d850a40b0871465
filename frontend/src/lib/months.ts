/** The months by name, the same on every page. */
export const MONTHS = [
  ...["January", "February", "March", "April", "May", "June"],
  ...["July", "August", "September", "October", "November", "December"],
];
