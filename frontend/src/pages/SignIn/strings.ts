export const words = {
  title: "Find the depth they feed at. Know where your fly is.",
  about:
    "Still Thread does the measuring and the sums of a day on a trout lake: reads the water, picks the depth, tells you the count, and keeps the log.",
  hung: ["Read the water", "Choose the depth", "Count it down", "Keep the log"],
  demo: "Step in as the demo angler",
  demoFeet: "The same in feet and °F",
  demoAbout: "Two invented lakes and a part-season of outings. Change anything.",
  or: "Or use your own account",
  name: "Name",
  password: "Password",
  nameHint: "3 to 40 letters, digits or . + - _",
  passwordHint: "Ten characters or more, not a common word",
  signIn: "Sign in",
  signUp: "Make an account",
  toSignUp: "I have no account yet",
  toSignIn: "I have an account",
  column: "A marked cord hanging in a lake, a knot every metre",
};
