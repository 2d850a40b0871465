/** What is seldom said on every page. */
export const words = {
  expired: (name: string) => `You have been signed out. Your password, ${name}, and what waits is sent.`,
  password: "Password",
  signIn: "Sign in",
  newVersion: "A newer Still Thread is ready.",
  takeVersion: "Load it now",
  notKept:
    "Opened over a plain address, this page cannot be kept for where there is no signal. Open it by an https address.",
  understood: "Understood",
  leaveAbout: (n: number) =>
    `${n === 1 ? "One entry has" : `${n} entries have`} not arrived. They stay on this device and go when you sign in here again; what it keeps for the dark goes now.`,
  leaveSure: "Sign out all the same",
  stay: "Stay",
  leave: "Sign out",
};
