"""The thread itself: drag and water, net weight from the sink rate, a rig as a chain, the cable that moves it."""
