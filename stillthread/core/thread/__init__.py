"""Where the fly is. This first room holds a shortcut, labelled approximate wherever it is shown."""
