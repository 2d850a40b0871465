"""What trout eat in still water, when it is about, and where in the water it is."""
