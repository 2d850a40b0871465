"""Where the trout feed: the belief over depth by factors, each with what was read; and what reaches them there."""
