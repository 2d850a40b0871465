/** Words of notices that are seldom shown, fetched with them. */
export const words = {
  aside: "Set aside",
  asideOld: (at: string) =>
    `Typed ${at ? `on ${at}` : "on another day"} and set aside: it does not stand for today.`,
  asideUnreadable: "Something kept on this device for this water could not be read. It was set aside.",
  asideTakeUp: "Go on with it",
  discard: "Drop it",
  mending: (at: string) => `This is the reading of ${at}. What you change here mends it.`,
  toNow: "Back to now",
};
