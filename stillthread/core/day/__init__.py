"""The day as the methods see it: what is given, the schools, what follows from them, remembered paths."""
