"""An outing laid on its plan: what can be done now, the stretches as evidence, the next step in words, the dark, the day after."""
