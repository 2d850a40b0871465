"""The bed and the shore: outlines, soundings, lines of soundings."""
